-- Up Migration
-- Whatever takes a while, not only files that are read: tables of a puzzle, a school over many scrambles.
alter table imports rename to jobs;
alter index imports_profile rename to jobs_profile;
alter table jobs drop constraint imports_kind_check;
alter table jobs add constraint jobs_kind_check check (kind in ('log', 'backup', 'tables', 'survey'));
-- What it is about: a puzzle's id, or that and a school's.
alter table jobs add column subject text;
create index jobs_subject on jobs (profile_id, kind, subject) where subject is not null;

-- Down Migration
drop index jobs_subject;
delete from jobs where kind in ('tables', 'survey');
alter table jobs drop column subject;
alter table jobs drop constraint jobs_kind_check;
alter table jobs add constraint imports_kind_check check (kind in ('log', 'backup'));
alter index jobs_profile rename to imports_profile;
alter table jobs rename to imports;
