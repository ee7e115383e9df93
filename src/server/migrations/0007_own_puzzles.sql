-- Up Migration
-- Puzzle files that a person has put on the shelf. The id is made from the content, which never changes.
create table own_puzzles (
  profile_id uuid not null references profiles on delete cascade,
  id text not null,
  definition jsonb not null,
  created_at timestamptz not null default clock_timestamp(),
  primary key (profile_id, id)
);

-- Down Migration
drop table own_puzzles;
