-- Up Migration
-- How many turns a bench had when it was left off: it stays in the log with them, and can be taken up again.
alter table bench_sessions add column turns integer;
update bench_sessions s set turns = greatest(0, coalesce((
  select count(*) filter (where e.event->>'kind' = 'turn') - count(*) filter (where e.event->>'kind' = 'undo')
  from bench_events e where e.session_id = s.id), 0))
where status = 'aside';
create index bench_sessions_aside on bench_sessions (profile_id, ended_at desc) where status = 'aside';

-- Down Migration
drop index bench_sessions_aside;
alter table bench_sessions drop column turns;
