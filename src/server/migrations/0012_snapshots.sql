-- Up Migration
-- Where a bench stood after so many events, so that not all of them are replayed each time. The events stay what
-- counts: a snapshot that another program has made is passed over and made anew.
create table bench_snapshots (
  session_id uuid not null references bench_sessions on delete cascade,
  events integer not null check (events >= 0),
  program text not null,
  snapshot jsonb not null,
  primary key (session_id, events)
);

-- What the shelf shows of the bench, and after how many events that was so.
alter table bench_sessions add column standing jsonb;

-- Down Migration
alter table bench_sessions drop column standing;
drop table bench_snapshots;
