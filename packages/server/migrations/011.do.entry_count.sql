-- How many entries an examination has, counted as they come in, so that a list need not count them; and the way from an examination to one subject.
create table entry_count (
  examination_id uuid primary key,
  site_id uuid not null references site,
  entries int not null,
  foreign key (examination_id, site_id) references examination (id, site_id)
);
insert into entry_count (examination_id, site_id, entries) select examination_id, site_id, count(*) from entry group by examination_id, site_id;
alter table entry_count enable row level security;
create policy own_site on entry_count using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
grant select on entry_count to awl_app;
create function count_entries() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  insert into entry_count as c (examination_id, site_id, entries) select examination_id, site_id, count(*) from added group by examination_id, site_id
    on conflict (examination_id) do update set entries = c.entries + excluded.entries;
  return null;
end $$;
create trigger are_counted after insert on entry referencing new table as added for each statement execute function count_entries();
create index entry_by_subject on entry (examination_id, about, at desc, id desc);
