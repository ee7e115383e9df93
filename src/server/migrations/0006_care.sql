-- Up Migration
create table care_entries (
  id uuid primary key default gen_random_uuid(),
  copy_id uuid not null references copies on delete cascade,
  happened_on date not null,
  kind text not null check (kind in ('tension', 'pop', 'refit', 'stickers')),
  note text not null default '' check (length(note) <= 500),
  created_at timestamptz not null default clock_timestamp()
);
create index care_entries_copy on care_entries (copy_id, happened_on desc, created_at desc);

-- Down Migration
drop table care_entries;
