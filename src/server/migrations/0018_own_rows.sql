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

do $$
declare
  name text;
  part text[];
begin
  foreach name in array array['settings', 'copies', 'bench_sessions', 'solves', 'own_puzzles', 'own_schools',
    'algorithms', 'jobs']
  loop
    execute format('alter table %I enable row level security, force row level security', name);
    execute format(
      'create policy own on %I using (profile_id = (select speaking_for()) or (select speaking_for_all()))', name);
  end loop;
  -- What belongs to a row is seen by whoever sees that.
  foreach part slice 1 in array array[['bench_events', 'session_id', 'bench_sessions'],
    ['bench_snapshots', 'session_id', 'bench_sessions'], ['solve_stages', 'solve_id', 'solves'],
    ['care_entries', 'copy_id', 'copies'], ['job_parts', 'job_id', 'jobs']]
  loop
    execute format('alter table %I enable row level security, force row level security', part[1]);
    execute format(
      'create policy own on %I using (exists (select from %I of where of.id = %I))', part[1], part[3], part[2]);
  end loop;
end $$;

-- Down Migration
do $$
declare
  name text;
begin
  for name in select tablename from pg_policies where schemaname = 'public' and policyname = 'own'
  loop
    execute format('drop policy own on %I', name);
    execute format('alter table %I no force row level security, disable row level security', name);
  end loop;
  if exists (select from pg_roles where rolname = 'merry_solver') then
    alter default privileges in schema public
      revoke select, insert, update, delete on tables from merry_solver;
    revoke all on all tables in schema public from merry_solver;
  end if;
end $$;
drop policy offered on profiles;
drop function speaking_for();
drop function speaking_for_all();
