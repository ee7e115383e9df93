-- Up Migration
-- School files that a person has kept, each for a puzzle on which it was proven. The id is made from the content.
create table own_schools (
  profile_id uuid not null references profiles on delete cascade,
  puzzle_id text not null,
  id text not null,
  school jsonb not null,
  created_at timestamptz not null default clock_timestamp(),
  primary key (profile_id, puzzle_id, id)
);

-- Down Migration
drop table own_schools;
