-- Up Migration
-- Sequences that a person keeps, each for a puzzle: turns in canonical notation, with their brackets.
create table algorithms (
  id uuid primary key default gen_random_uuid(),
  profile_id uuid not null references profiles on delete cascade,
  puzzle_id text not null,
  turns text not null check (length(turns) between 1 and 4000),
  name text not null default '' check (length(name) <= 80),
  remark text not null default '' check (length(remark) <= 2000),
  -- The way the finished puzzle is held at the start: a rotation as a letter, a for as it is drawn.
  hold text not null default 'a' check (hold ~ '^[a-x]$'),
  created_at timestamptz not null default clock_timestamp(),
  unique (profile_id, puzzle_id, turns, hold)
);

-- Down Migration
drop table algorithms;
