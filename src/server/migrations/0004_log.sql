-- Up Migration
create table solves (
  id uuid primary key default gen_random_uuid(),
  profile_id uuid not null references profiles on delete cascade,
  session_id uuid unique references bench_sessions on delete set null,
  copy_id uuid references copies on delete set null,
  puzzle_id text not null,
  school text,
  variant jsonb not null default '{}',
  -- The nickname of whoever held the puzzle.
  solver text not null default '' check (length(solver) <= 80),
  start_state text not null,
  scramble text not null default '',
  solution text not null,
  finished_at timestamptz not null,
  elapsed_ms integer not null check (elapsed_ms >= 0),
  turn_count integer not null check (turn_count >= 0),
  quarter_count integer not null check (quarter_count >= 0),
  slips integer not null default 0 check (slips >= 0),
  hints integer not null default 0 check (hints >= 0),
  remark text not null default '' check (length(remark) <= 2000)
);
create index solves_profile on solves (profile_id, finished_at desc);

create table solve_stages (
  solve_id uuid not null references solves on delete cascade,
  ordinal integer not null,
  stage_id text not null,
  name text not null,
  turn_count integer not null check (turn_count >= 0),
  elapsed_ms integer not null check (elapsed_ms >= 0),
  primary key (solve_id, ordinal)
);

-- Down Migration
drop table solve_stages;
drop table solves;
