-- Up Migration
create table profiles (
  id uuid primary key default gen_random_uuid(),
  nickname text not null check (length(nickname) between 1 and 80),
  created_at timestamptz not null default clock_timestamp()
);

create table settings (
  profile_id uuid primary key references profiles on delete cascade,
  value jsonb not null,
  updated_at timestamptz not null default now()
);

-- Down Migration
drop table settings;
drop table profiles;
