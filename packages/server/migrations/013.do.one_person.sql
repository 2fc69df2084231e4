-- Two records of one person: one stands for both, and nothing is moved, so that what was signed stays as it was sealed and the two can be parted again.
alter table patient
  add column merged_into uuid,
  add column person uuid generated always as (coalesce(merged_into, id)) stored,
  add foreign key (merged_into, site_id) references patient (id, site_id),
  add constraint no_record_of_itself check (merged_into <> id);
comment on column patient.merged_into is 'the record that stands for this one; it stands for itself';
comment on column patient.person is 'the record that stands for the person';
create index patient_by_person on patient (person);

create table merge (
  id uuid primary key,
  site_id uuid not null references site,
  patient_id uuid not null,
  into_patient uuid not null,
  kind text not null check (kind in ('merged', 'separated')),
  reason text not null,
  was jsonb not null,
  by_account uuid not null,
  at timestamptz not null default now(),
  foreign key (patient_id, site_id) references patient (id, site_id),
  foreign key (into_patient, site_id) references patient (id, site_id),
  foreign key (by_account, site_id) references account (id, site_id)
);
comment on column merge.was is 'both records as they were';
create index merge_by_patient on merge (into_patient, at desc);
create trigger append_only before update or delete on merge for each row execute function never_change();
create trigger never_emptied before truncate on merge execute function never_change();
alter table merge enable row level security;
create policy own_site on merge using (site_id = nullif(current_setting('awl.site', true), '')::uuid);

-- A record stands for others or has one that stands for it, never both: who the person is is found in one step.
create function keep_one_step() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  if new.merged_into is not null and (exists (select 1 from patient where id = new.merged_into and merged_into is not null)
      or exists (select 1 from patient where merged_into = new.id)) then
    raise exception 'patient % stands for others, or % does not stand for itself', new.id, new.merged_into using errcode = 'object_not_in_prerequisite_state';
  end if;
  return new;
end $$;
create trigger one_step before insert or update of merged_into on patient for each row execute function keep_one_step();
revoke execute on function keep_one_step() from public;

grant select, insert on merge to awl_app;
grant update (merged_into) on patient to awl_app;
grant execute on function add_range_job(uuid) to awl_app;
