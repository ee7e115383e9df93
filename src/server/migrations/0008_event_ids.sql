-- Up Migration
-- Every event has a name of its own, given by the page that made it: sent again it is not stored again.
alter table bench_events add column id uuid not null default gen_random_uuid();
alter table bench_events add constraint bench_events_id unique (session_id, id);

-- Down Migration
alter table bench_events drop constraint bench_events_id;
alter table bench_events drop column id;
