-- Up Migration
-- Every row is seen and changed by its solver alone: what a statement may see follows from whom its connection speaks
-- for (`merry.solver`: a solver's id, `everyone` for the program itself, and nothing at all where it is not said).
create function speaking_for() returns uuid language sql stable as $$
  select case when said not in ('', 'everyone') then said::uuid end
  from current_setting('merry.solver', true) as said
$$;
create function speaking_for_all() returns boolean language sql stable as $$
  select current_setting('merry.solver', true) = 'everyone'
$$;

-- Whoever may do everything is kept by no policy: such a connection takes a role that may not. It may be there
-- already, for another database.
do $$ begin
  if exists (select from pg_roles where rolname = session_user and (rolsuper or rolbypassrls)) then
    begin
      create role merry_solver nologin;
    exception when duplicate_object or unique_violation then null;
    end;
    grant select, insert, update, delete on all tables in schema public to merry_solver;
    alter default privileges in schema public
      grant select, insert, update, delete on tables to merry_solver;
  end if;
end $$;

-- What stands in brackets with a select is asked once a statement, not once a row.
-- Solvers are offered to each other by name; each changes only themselves.
alter table profiles enable row level security, force row level security;
create policy offered on profiles for select using (true);
create policy own on profiles using (id = (select speaking_for()) or (select speaking_for_all()));

alter table settings enable row level security, force row level security;
create policy own on settings using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table copies enable row level security, force row level security;
create policy own on copies using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table bench_sessions enable row level security, force row level security;
create policy own on bench_sessions using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table solves enable row level security, force row level security;
create policy own on solves using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table own_puzzles enable row level security, force row level security;
create policy own on own_puzzles using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table own_schools enable row level security, force row level security;
create policy own on own_schools using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table algorithms enable row level security, force row level security;
create policy own on algorithms using (profile_id = (select speaking_for()) or (select speaking_for_all()));

alter table jobs enable row level security, force row level security;
create policy own on jobs using (profile_id = (select speaking_for()) or (select speaking_for_all()));

-- What belongs to a row is seen by whoever sees that.
alter table bench_events enable row level security, force row level security;
create policy own on bench_events using (exists (select from bench_sessions of where of.id = session_id));
alter table bench_snapshots enable row level security, force row level security;
create policy own on bench_snapshots using (exists (select from bench_sessions of where of.id = session_id));
alter table solve_stages enable row level security, force row level security;
create policy own on solve_stages using (exists (select from solves of where of.id = solve_id));
alter table care_entries enable row level security, force row level security;
create policy own on care_entries using (exists (select from copies of where of.id = copy_id));
alter table job_parts enable row level security, force row level security;
create policy own on job_parts using (exists (select from jobs of where of.id = job_id));

-- Down Migration
drop policy own on profiles;
alter table profiles no force row level security, disable row level security;
drop policy own on settings;
alter table settings no force row level security, disable row level security;
drop policy own on copies;
alter table copies no force row level security, disable row level security;
drop policy own on bench_sessions;
alter table bench_sessions no force row level security, disable row level security;
drop policy own on solves;
alter table solves no force row level security, disable row level security;
drop policy own on own_puzzles;
alter table own_puzzles no force row level security, disable row level security;
drop policy own on own_schools;
alter table own_schools no force row level security, disable row level security;
drop policy own on algorithms;
alter table algorithms no force row level security, disable row level security;
drop policy own on jobs;
alter table jobs no force row level security, disable row level security;
drop policy own on bench_events;
alter table bench_events no force row level security, disable row level security;
drop policy own on bench_snapshots;
alter table bench_snapshots no force row level security, disable row level security;
drop policy own on solve_stages;
alter table solve_stages no force row level security, disable row level security;
drop policy own on care_entries;
alter table care_entries no force row level security, disable row level security;
drop policy own on job_parts;
alter table job_parts no force row level security, disable row level security;
drop policy offered on profiles;
drop function speaking_for();
drop function speaking_for_all();
do $$ begin
  if exists (select from pg_roles where rolname = 'merry_solver') then
    alter default privileges in schema public
      revoke select, insert, update, delete on tables from merry_solver;
    revoke all on all tables in schema public from merry_solver;
  end if;
end $$;
