-- Up Migration
-- The log is read in pages, newest first, as a whole or filtered, and the values to filter by are looked up.
drop index solves_profile;
create index solves_when on solves (profile_id, finished_at desc, id);
create index solves_puzzle on solves (profile_id, puzzle_id, finished_at desc, id);
create index solves_solver on solves (profile_id, solver, finished_at desc, id);
create index solves_school on solves (profile_id, school, finished_at desc, id);
-- The shelf counts the solves of a copy, and removing a copy looks for them.
create index solves_copy on solves (copy_id, finished_at);
-- The open bench of a copy, and what goes with a copy that is removed.
create index bench_sessions_copy on bench_sessions (copy_id, status, created_at desc);

-- Down Migration
drop index bench_sessions_copy;
drop index solves_copy;
drop index solves_school;
drop index solves_solver;
drop index solves_puzzle;
drop index solves_when;
create index solves_profile on solves (profile_id, finished_at desc);
