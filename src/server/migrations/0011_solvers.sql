-- Up Migration
-- Several solvers share one machine: each has a name that tells them apart.
update profiles p set nickname = left(btrim(s.value->>'nickname'), 80)
from settings s
where s.profile_id = p.id and btrim(coalesce(s.value->>'nickname', '')) <> '';
create unique index profiles_nickname on profiles (lower(nickname));

-- The program that has last read the file, and what it found wrong: each program reads each file once.
alter table own_puzzles add column read_by text;
alter table own_puzzles add column problem jsonb;

-- Down Migration
alter table own_puzzles drop column problem;
alter table own_puzzles drop column read_by;
drop index profiles_nickname;
