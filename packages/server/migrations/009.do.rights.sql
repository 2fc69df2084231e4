-- What the application may write, said by the database itself: nothing of another site, nothing signed anew or dated back, no session but its own kind,
-- no content pack; nobody's password is read but by signing in.

-- A row and what it refers to are of one site.
alter table account add unique (id, site_id);
alter table patient add unique (id, site_id);
alter table examination add unique (id, site_id);
alter table verdict add unique (id, site_id);
alter table referral add unique (id, site_id);
alter table examination
  add foreign key (patient_id, site_id) references patient (id, site_id),
  add foreign key (visit, site_id) references examination (id, site_id),
  add foreign key (started_by, site_id) references account (id, site_id),
  add foreign key (signed_by, site_id) references account (id, site_id),
  add foreign key (discarded_by, site_id) references account (id, site_id);
alter table entry
  add column account_id uuid,
  add foreign key (examination_id, site_id) references examination (id, site_id),
  add foreign key (account_id, site_id) references account (id, site_id);
comment on column entry.account_id is 'who sent it, set by the server; null for entries of before';
alter table verdict
  add foreign key (examination_id, site_id) references examination (id, site_id),
  add foreign key (by_account, site_id) references account (id, site_id);
alter table seal add foreign key (verdict_id, site_id) references verdict (id, site_id);
alter table standing_range add foreign key (examination_id, site_id) references examination (id, site_id);
alter table referral
  add foreign key (examination_id, site_id) references examination (id, site_id),
  add foreign key (patient_id, site_id) references patient (id, site_id),
  add foreign key (by_account, site_id) references account (id, site_id);
alter table referral_event
  add foreign key (referral_id, site_id) references referral (id, site_id),
  add foreign key (by_account, site_id) references account (id, site_id);
alter table correction
  add foreign key (patient_id, site_id) references patient (id, site_id),
  add foreign key (examination_id, site_id) references examination (id, site_id),
  add foreign key (by_account, site_id) references account (id, site_id);

-- Signed and discarded are ends: nothing of the row changes any more, and the time is that of the transaction.
drop trigger signed_keeps_its_sides on examination;
drop function keep_sides();
create function keep_ended() returns trigger language plpgsql as $$
begin
  if old.signed_at is not null or old.discarded_at is not null then
    raise exception 'examination % is signed or discarded', old.id using errcode = 'object_not_in_prerequisite_state';
  end if;
  if current_user = 'awl_app' and (coalesce(new.signed_at, now()) <> now() or coalesce(new.discarded_at, now()) <> now()) then
    raise exception 'examination % is signed or discarded at the time at which it is', old.id using errcode = 'insufficient_privilege';
  end if;
  return new;
end $$;
create trigger ended_keeps_still before update on examination for each row execute function keep_ended();
create function begin_unsigned() returns trigger language plpgsql as $$
begin
  if current_user = 'awl_app' and (new.signed_at is not null or new.discarded_at is not null) then
    raise exception 'an examination begins unsigned' using errcode = 'insufficient_privilege';
  end if;
  return new;
end $$;
create trigger begins_unsigned before insert on examination for each row execute function begin_unsigned();

-- Numbers of patients go on by one.
create function count_on() returns trigger language plpgsql as $$
begin
  if new.last <> old.last + 1 then
    raise exception 'patient numbers go on by one' using errcode = 'insufficient_privilege';
  end if;
  return new;
end $$;
create trigger goes_on_by_one before update on patient_number for each row execute function count_on();

-- What is only added to is not emptied either.
create trigger never_emptied before truncate on correction execute function never_change();
create trigger append_only before update or delete on referral for each row execute function never_change();
create trigger never_emptied before truncate on referral execute function never_change();
create trigger append_only before update or delete on pack for each row execute function never_change();

-- The chain is read by whoever seals the next row as far as that needs, and by a site as far as it is the site's own. Whoever asks holds it until
-- the end of the transaction; the last row is read in a statement after that of the lock, which alone sees what the one before has committed.
create function hold_audit() returns table (seq bigint, hash text) language plpgsql volatile security definer set search_path = public, pg_temp as $$
begin
  perform pg_advisory_xact_lock(814002);
  return query select a.seq, a.hash from audit a order by a.seq desc limit 1;
end $$;
alter table audit enable row level security;
create policy own_site_reads on audit for select using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
create policy all_add on audit for insert with check (true);

-- Packs are stored as the server is brought up to date.
revoke insert on pack from awl_app;

-- Accounts are seen by their site, their passwords by nobody; who signs in and whose session it is are asked by name and by token.
alter table account enable row level security;
create policy own_site on account using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
revoke all on site, account, session from awl_app;
grant select (id, site_id, sign_in, name, role) on account to awl_app;
