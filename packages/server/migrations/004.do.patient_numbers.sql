-- Patient numbers come from a sequence of each site: two patients added at once never get the same one.
create table patient_number (
  site_id uuid primary key references site,
  last int not null
);
insert into patient_number (site_id, last)
  select s.id, coalesce(max(nullif(regexp_replace(p.local_number, '\D', '', 'g'), '')::int), 4100)
  from site s left join patient p on p.site_id = s.id group by s.id;
create function begin_patient_numbers() returns trigger language plpgsql as $$
begin
  insert into patient_number (site_id, last) values (new.id, 4100);
  return new;
end $$;
create trigger begins_numbers after insert on site for each row execute function begin_patient_numbers();
alter table patient_number enable row level security;
create policy own_site on patient_number using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
grant select, update on patient_number to awl_app;
