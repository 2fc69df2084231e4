-- People: invited with a code that is used once, with a second factor, disabled and not deleted; their sessions, and where they signed in before.
alter table site add column created_at timestamptz not null default now();

alter table account
  add column disabled_at timestamptz,
  add column is_demo boolean not null default false,
  add column second_factor text,
  add column second_factor_step bigint not null default 0;
comment on column account.second_factor is 'secret of the time-based one-time codes (RFC 6238), encrypted by the server; null for none';
comment on column account.second_factor_step is 'the last step of time whose code was used: no code is used twice';

-- The accounts of a demonstration of before, by their names.
update account set is_demo = true where sign_in in ('brannock', 'quill', 'fenn', 'lark');

create table recovery_code (
  account_id uuid not null,
  site_id uuid not null references site,
  code_hash bytea not null,
  used_at timestamptz,
  primary key (account_id, code_hash),
  foreign key (account_id, site_id) references account (id, site_id)
);
alter table recovery_code enable row level security;
create policy own_site on recovery_code using (site_id = nullif(current_setting('awl.site', true), '')::uuid);

-- A code with which somebody sets the first password of an account, or another one after it was reset.
create table invitation (
  code_hash bytea primary key,
  account_id uuid not null,
  site_id uuid not null references site,
  expires_at timestamptz not null,
  used_at timestamptz,
  foreign key (account_id, site_id) references account (id, site_id)
);
alter table invitation enable row level security;
create policy own_site on invitation using (site_id = nullif(current_setting('awl.site', true), '')::uuid);

alter table session
  add column id uuid not null default gen_random_uuid() unique,
  add column address text not null default '',
  add column browser text not null default '',
  add column seen_at timestamptz not null default now(),
  add column locked_at timestamptz,
  add constraint no_longer_than_a_day check (expires_at <= created_at + interval '1 day');
create index session_by_account on session (account_id);

-- Tries that failed, by whom they named and from where; and from where somebody signed in before, who may go on trying while others are refused.
create table failed_sign_in (
  sign_in text not null,
  address text not null,
  at timestamptz not null default now()
);
create index failed_sign_in_by_name on failed_sign_in (sign_in, at);
create index failed_sign_in_by_address on failed_sign_in (address, at);
create table known_place (
  account_id uuid not null references account,
  address text not null,
  at timestamptz not null default now(),
  primary key (account_id, address)
);

create function who_is(a account) returns json language sql stable security definer set search_path = public, pg_temp
  as $$ select json_build_object('id', a.id, 'site', a.site_id, 'siteName', s.name, 'zone', s.zone, 'signIn', a.sign_in, 'name', a.name, 'role', a.role,
          'isDemo', a.is_demo, 'hasSecondFactor', a.second_factor is not null) from site s where s.id = a.site_id $$;
create function account_to_sign_in(wanted text)
  returns table (person json, "passwordHash" text, "secondFactor" text, "secondFactorStep" bigint) language sql stable security definer set search_path = public, pg_temp
  as $$ select who_is(a), a.password_hash, a.second_factor, a.second_factor_step from account a where a.sign_in = wanted and a.disabled_at is null $$;

-- Whose session a token is; that it was used is noted, once a minute.
create function account_of_session(token bytea)
  returns table (person json, "session" uuid, "lockedAt" timestamptz, "seenAt" timestamptz) language sql stable security definer set search_path = public, pg_temp
  as $$ select who_is(a), t.id, t.locked_at, t.seen_at from session t join account a on a.id = t.account_id
        where t.token_hash = token and t.expires_at > now() and a.disabled_at is null $$;
create function begin_session(token bytea, account uuid, hours int, address text, browser text) returns void language sql security definer set search_path = public, pg_temp
  as $$ insert into session (token_hash, account_id, expires_at, address, browser) values (token, account, now() + make_interval(hours => hours), address, browser) $$;
create function see_session(token bytea) returns void language sql security definer set search_path = public, pg_temp
  as $$ update session set seen_at = now() where token_hash = token $$;
create function lock_session(token bytea, is_locked boolean) returns void language sql security definer set search_path = public, pg_temp
  as $$ update session set locked_at = case when is_locked then coalesce(locked_at, now()) end, seen_at = now() where token_hash = token $$;
create function end_session(token bytea) returns void language sql security definer set search_path = public, pg_temp
  as $$ delete from session where token_hash = token $$;
create function sessions_of(whose uuid) returns table (id uuid, "createdAt" timestamptz, "seenAt" timestamptz, address text, browser text)
  language sql stable security definer set search_path = public, pg_temp
  as $$ select id, created_at, seen_at, address, browser from session where account_id = whose and expires_at > now() order by seen_at desc $$;
-- All of somebody's sessions, one of them, or all but one.
create function end_sessions(whose uuid, one uuid, but bytea) returns int language sql security definer set search_path = public, pg_temp
  as $$ with gone as (delete from session where account_id = whose and (one is null or id = one) and (but is null or token_hash <> but) returning 1) select count(*)::int from gone $$;
create function purge_expired() returns int language sql security definer set search_path = public, pg_temp
  as $$ with old as (delete from session where expires_at < now() returning 1),
             tries as (delete from failed_sign_in where at < now() - interval '1 day' returning 1),
             codes as (delete from invitation where expires_at < now() - interval '30 days' returning 1)
        select (select count(*) from old)::int $$;

-- An invitation is taken up by whoever has its code, before it is known of which site they are.
create function account_of_invitation(code bytea) returns table (person json) language sql stable security definer set search_path = public, pg_temp
  as $$ select who_is(a) from invitation i join account a on a.id = i.account_id
        where i.code_hash = code and i.used_at is null and i.expires_at > now() and a.disabled_at is null $$;
create function note_failed_sign_in(name text, place text) returns void language sql security definer set search_path = public, pg_temp
  as $$ insert into failed_sign_in (sign_in, address) values (name, place) $$;
create function note_known_place(whose uuid, place text) returns void language sql security definer set search_path = public, pg_temp
  as $$ insert into known_place (account_id, address) values (whose, place) on conflict (account_id, address) do update set at = now() $$;
create function sign_in_tries(wanted text, place text)
  returns table (here int, "fromPlace" int, "ofName" int, "isKnownPlace" boolean) language sql stable security definer set search_path = public, pg_temp
  as $$ select (select count(*)::int from failed_sign_in where sign_in = wanted and address = place and at > now() - interval '15 minutes'),
               (select count(*)::int from failed_sign_in where address = place and at > now() - interval '15 minutes'),
               (select count(*)::int from failed_sign_in where sign_in = wanted and at > now() - interval '15 minutes'),
               exists (select 1 from known_place k join account a on a.id = k.account_id where a.sign_in = wanted and k.address = place) $$;

-- The server acts as a site when it writes to these; a function above where it does not yet know which.
revoke execute on all functions in schema public from public;
grant execute on function hold_audit(), account_to_sign_in(text), account_of_session(bytea), begin_session(bytea, uuid, int, text, text), see_session(bytea),
  lock_session(bytea, boolean), end_session(bytea), sessions_of(uuid), end_sessions(uuid, uuid, bytea), purge_expired(), account_of_invitation(bytea),
  note_failed_sign_in(text, text), note_known_place(uuid, text), sign_in_tries(text, text) to awl_app;
grant select (created_at, disabled_at, is_demo, second_factor_step) on account to awl_app;
grant insert (id, site_id, sign_in, name, role, password_hash) on account to awl_app;
grant update (name, role, password_hash, disabled_at, second_factor, second_factor_step) on account to awl_app;
grant select, insert, delete on recovery_code to awl_app;
grant update (used_at) on recovery_code to awl_app;
grant select, insert on invitation to awl_app;
grant update (used_at, expires_at) on invitation to awl_app;
