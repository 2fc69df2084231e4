-- What was asked is told apart from what was not; drafts are discarded and facts corrected with a trace; a referral follows an amendment.

-- In whose time letters and prints are written: an IANA name.
alter table site add column zone text not null default 'UTC';

-- Null: nobody asked.
alter table patient alter column sex drop default;
alter table patient alter column sex drop not null;
create index patient_by_birth_date on patient (site_id, birth_date);

alter table examination
  add column discarded_at timestamptz,
  add column discarded_by uuid references account,
  add column discard_reason text not null default '',
  add constraint signed_or_discarded check (signed_at is null or discarded_at is null);
create index examination_open on examination (site_id, started_at) where signed_at is null and discarded_at is null;

create table correction (
  id uuid primary key,
  site_id uuid not null references site,
  patient_id uuid references patient,
  examination_id uuid references examination,
  field text not null,
  was text not null,
  becomes text not null,
  reason text not null,
  by_account uuid not null references account,
  at timestamptz not null default now(),
  check ((patient_id is null) <> (examination_id is null))
);
create index correction_by_patient on correction (patient_id, at desc);
create index correction_by_examination on correction (examination_id, at desc);
create trigger append_only before update or delete on correction for each row execute function never_change();
alter table correction enable row level security;
create policy own_site on correction using (site_id = nullif(current_setting('awl.site', true), '')::uuid);

-- After an amendment the priority of an open referral may be another: the event says which, and the letter that now holds.
alter table referral_event drop constraint referral_event_kind_check;
alter table referral_event add constraint referral_event_kind_check check (kind in ('made', 'told', 'accepted', 'refused', 'closed', 'changed', 'reopened'));
alter table referral_event add column tier text, add column due_at timestamptz, add column letter jsonb;
alter table referral_event add constraint changed_says_what check ((kind = 'changed') = (tier is not null));

create function keep_discarded() returns trigger language plpgsql as $$
begin
  if exists (select 1 from examination e where e.id = new.examination_id and e.discarded_at is not null) then
    raise exception 'examination % is discarded', new.examination_id using errcode = 'object_not_in_prerequisite_state';
  end if;
  return new;
end $$;
create trigger discarded_takes_nothing before insert on entry for each row execute function keep_discarded();

create function keep_sides() returns trigger language plpgsql as $$
begin
  if new.sides <> old.sides and old.signed_at is not null then
    raise exception 'examination % is signed', old.id using errcode = 'object_not_in_prerequisite_state';
  end if;
  return new;
end $$;
create trigger signed_keeps_its_sides before update on examination for each row execute function keep_sides();

grant select, insert on correction to awl_app;
grant update (name, birth_date, sex, contact) on patient to awl_app;
grant update (sides, discarded_at, discarded_by, discard_reason) on examination to awl_app;
