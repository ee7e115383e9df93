-- Up Migration
-- A file comes in pieces and is read piece by piece, so that its size costs no memory.
create table job_parts (
  job_id uuid not null references jobs on delete cascade,
  seq integer not null,
  bytes bytea not null,
  primary key (job_id, seq)
);
-- They are read once and thrown away: not worth being pressed together.
alter table job_parts alter column bytes set storage external;
insert into job_parts (job_id, seq, bytes)
  select id, 0, convert_to(file, 'UTF8') from jobs where file is not null;
alter table jobs drop column file;
-- How long the file is, in bytes.
alter table jobs add column bytes bigint not null default 0;
update jobs set bytes = coalesce((select sum(length(p.bytes)) from job_parts p where p.job_id = id), 0);
-- While a file is on its way it is `arriving`.
alter table jobs drop constraint imports_state_check;
alter table jobs add constraint jobs_state_check
  check (state in ('arriving', 'waiting', 'running', 'done', 'refused', 'stopped'));
alter table jobs drop constraint jobs_kind_check;
alter table jobs add constraint jobs_kind_check
  check (kind in ('log', 'backup', 'sequences', 'tables', 'survey'));
-- A page that stays open for a month counts more milliseconds than an integer holds.
alter table solves alter column elapsed_ms type bigint;
alter table solve_stages alter column elapsed_ms type bigint;

-- Down Migration
alter table solve_stages alter column elapsed_ms type integer using least(elapsed_ms, 2147483647)::integer;
alter table solves alter column elapsed_ms type integer using least(elapsed_ms, 2147483647)::integer;
delete from jobs where kind = 'sequences' or state = 'arriving';
alter table jobs drop constraint jobs_kind_check;
alter table jobs add constraint jobs_kind_check check (kind in ('log', 'backup', 'tables', 'survey'));
alter table jobs drop constraint jobs_state_check;
alter table jobs add constraint imports_state_check
  check (state in ('waiting', 'running', 'done', 'refused', 'stopped'));
alter table jobs drop column bytes;
alter table jobs add column file text;
update jobs set file = (
  select convert_from(string_agg(p.bytes, '' order by p.seq), 'UTF8') from job_parts p where p.job_id = id);
drop table job_parts;
