-- The range at which a record stands that is not signed: worked out after each entry, so that a list shows it and judges nothing.
create table standing_range (
  examination_id uuid primary key references examination,
  site_id uuid not null references site,
  entries int not null,
  sides text[] not null,
  floor text not null,
  ceiling text not null,
  priority text not null
);
comment on column standing_range.entries is 'how many entries it was judged on: with another number, or other sides, it no longer holds';
alter table standing_range enable row level security;
create policy own_site on standing_range using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
grant select, insert, update on standing_range to awl_app;
