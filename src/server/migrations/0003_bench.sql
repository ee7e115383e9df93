-- Up Migration
create table bench_sessions (
  id uuid primary key default gen_random_uuid(),
  profile_id uuid not null references profiles on delete cascade,
  copy_id uuid not null references copies on delete cascade,
  -- Null while the puzzle has no school: free play.
  school text,
  variant jsonb not null default '{}',
  start_state text not null,
  scramble text not null default '',
  seed bigint,
  laid_by text not null check (laid_by in ('scramble', 'colours')),
  status text not null default 'open' check (status in ('open', 'finished', 'aside')),
  created_at timestamptz not null default clock_timestamp(),
  ended_at timestamptz
);
create index bench_sessions_profile on bench_sessions (profile_id, status, created_at desc);

-- What happened on a bench, in order. Rows are added and never changed.
create table bench_events (
  session_id uuid not null references bench_sessions on delete cascade,
  seq integer not null check (seq >= 0),
  event jsonb not null,
  recorded_at timestamptz not null default now(),
  primary key (session_id, seq)
);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'bench events are added, never changed';
end $$;

create trigger bench_events_append_only
  before update on bench_events
  for each row execute function refuse_change();

-- Down Migration
drop table bench_events;
drop function refuse_change();
drop table bench_sessions;
