-- Up Migration
-- Files that are being read: one process takes each from the queue, and says here how far it is.
create table imports (
  id uuid primary key default gen_random_uuid(),
  profile_id uuid not null references profiles on delete cascade,
  kind text not null check (kind in ('log', 'backup')),
  -- Taken away when it has been read.
  file text,
  state text not null default 'waiting' check (state in ('waiting', 'running', 'done', 'refused', 'stopped')),
  share real not null default 0 check (share between 0 and 1),
  -- What came of it: a result, or the problem.
  result jsonb,
  -- Which process has taken it.
  taken_by text,
  touched_at timestamptz not null default clock_timestamp(),
  created_at timestamptz not null default clock_timestamp()
);
create index imports_profile on imports (profile_id, created_at desc);

-- Down Migration
drop table imports;
