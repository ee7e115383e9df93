-- Up Migration
create table copies (
  id uuid primary key default gen_random_uuid(),
  profile_id uuid not null references profiles on delete cascade,
  puzzle_id text not null,
  name text not null check (length(name) between 1 and 80),
  -- Colours by id: name, shade and mark of each.
  scheme jsonb not null,
  remarks text not null default '' check (length(remarks) <= 2000),
  created_at timestamptz not null default clock_timestamp()
);
create index copies_profile on copies (profile_id, created_at);

-- Down Migration
drop table copies;
