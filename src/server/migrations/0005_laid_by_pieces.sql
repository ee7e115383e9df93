-- Up Migration
alter table bench_sessions drop constraint bench_sessions_laid_by_check;
alter table bench_sessions
  add constraint bench_sessions_laid_by_check check (laid_by in ('scramble', 'colours', 'pieces'));

-- Down Migration
alter table bench_sessions drop constraint bench_sessions_laid_by_check;
alter table bench_sessions
  add constraint bench_sessions_laid_by_check check (laid_by in ('scramble', 'colours'));
