-- Everything a site records. The application signs in as awl_app, which may add but never change or delete what was recorded.

create table site (
  id uuid primary key,
  name text not null
);

create table account (
  id uuid primary key,
  site_id uuid not null references site,
  sign_in text not null unique check (sign_in ~ '^[a-z0-9._-]{2,40}$'),
  name text not null,
  role text not null check (role in ('clinician', 'lead', 'admin', 'learner')),
  password_hash text not null,
  created_at timestamptz not null default now()
);

create table session (
  token_hash bytea primary key,
  account_id uuid not null references account,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null
);

create table pack (
  hash text primary key,
  id text not null,
  version text not null,
  compiled jsonb not null,
  first_used_at timestamptz not null default now()
);

create table patient (
  id uuid primary key,
  site_id uuid not null references site,
  local_number text not null,
  name text not null check (length(name) between 1 and 120),
  birth_date date not null,
  sex text not null default 'other or unknown',
  contact text not null default '',
  created_at timestamptz not null default now(),
  unique (site_id, local_number)
);

create table examination (
  id uuid primary key,
  site_id uuid not null references site,
  patient_id uuid not null references patient,
  region text not null,
  sides text[] not null check (cardinality(sides) between 1 and 2),
  setting text not null check (setting in ('primary-care', 'emergency')),
  started_at timestamptz not null,
  started_by uuid not null references account,
  pack_hash text not null references pack,
  signed_at timestamptz,
  signed_by uuid references account
);
create index examination_by_patient on examination (patient_id, started_at desc);
create index examination_by_site on examination (site_id, started_at desc);

create table entry (
  id uuid primary key,
  examination_id uuid not null references examination,
  site_id uuid not null references site,
  item text not null,
  side text not null check (side in ('right', 'left', 'none')),
  body jsonb not null,
  at timestamptz not null,
  received_at timestamptz not null default now()
);
create index entry_by_examination on entry (examination_id, received_at);

create table verdict (
  id uuid primary key,
  examination_id uuid not null references examination,
  site_id uuid not null references site,
  kind text not null check (kind in ('signed', 'amended')),
  floor text not null,
  ceiling text not null,
  body jsonb not null,
  record_hash text not null,
  reason text not null default '',
  by_account uuid not null references account,
  at timestamptz not null default now()
);
create index verdict_by_examination on verdict (examination_id, at desc);

create table referral (
  id uuid primary key,
  examination_id uuid not null references examination,
  site_id uuid not null references site,
  patient_id uuid not null references patient,
  destination text not null,
  tier text not null,
  flagged_at timestamptz not null,
  due_at timestamptz,
  letter jsonb not null,
  by_account uuid not null references account
);
create index referral_by_site on referral (site_id, due_at);

create table referral_event (
  id uuid primary key,
  referral_id uuid not null references referral,
  site_id uuid not null references site,
  kind text not null check (kind in ('made', 'told', 'accepted', 'refused', 'closed')),
  note text not null default '',
  by_account uuid not null references account,
  at timestamptz not null default now()
);
create index referral_event_by_referral on referral_event (referral_id, at);

create table audit (
  seq bigint generated always as identity primary key,
  site_id uuid,
  account_id uuid,
  action text not null,
  about text not null default '',
  at timestamptz not null default now(),
  previous_hash text not null,
  hash text not null
);

-- Each audit row seals the one before it. The lock makes the chain one line however many servers write.
create function seal_audit() returns trigger language plpgsql as $$
begin
  perform pg_advisory_xact_lock(814002);
  select coalesce((select hash from audit order by seq desc limit 1), '') into new.previous_hash;
  new.at := clock_timestamp();
  new.hash := encode(sha256(convert_to(concat_ws('|', new.previous_hash, new.site_id, new.account_id, new.action, new.about, extract(epoch from new.at)), 'UTF8')), 'hex');
  return new;
end $$;
create trigger seal before insert on audit for each row execute function seal_audit();

create function never_change() returns trigger language plpgsql as $$
begin
  raise exception '% is append-only', tg_table_name using errcode = 'insufficient_privilege';
end $$;
create trigger append_only before update or delete on entry for each row execute function never_change();
create trigger append_only before update or delete on verdict for each row execute function never_change();
create trigger append_only before update or delete on referral_event for each row execute function never_change();
create trigger append_only before update or delete on audit for each row execute function never_change();

-- A signed examination takes no entry but an amendment with its reason.
create function keep_signed() returns trigger language plpgsql as $$
begin
  if exists (select 1 from examination e where e.id = new.examination_id and e.signed_at is not null) and coalesce(new.body ->> 'amends', '') = '' then
    raise exception 'examination % is signed' , new.examination_id using errcode = 'object_not_in_prerequisite_state';
  end if;
  return new;
end $$;
create trigger signed_takes_amendments before insert on entry for each row execute function keep_signed();

-- Rows of another site do not exist for a session that did not name it.
alter table patient enable row level security;
alter table examination enable row level security;
alter table entry enable row level security;
alter table verdict enable row level security;
alter table referral enable row level security;
alter table referral_event enable row level security;
create policy own_site on patient using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy own_site on examination using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy own_site on entry using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy own_site on verdict using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy own_site on referral using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy own_site on referral_event using (site_id = nullif(current_setting('awl.site', true), '')::uuid);

grant usage on schema public to awl_app;
grant select on site, account, pack to awl_app;
grant insert on pack to awl_app;
grant select, insert, delete on session to awl_app;
grant select, insert on patient, entry, verdict, referral, referral_event, audit to awl_app;
grant select, insert on examination to awl_app;
grant update (signed_at, signed_by) on examination to awl_app;
