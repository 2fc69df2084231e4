-- Several joints of one visit: each is an examination of its own, with its own verdict and seal; the visit is named after the first.

alter table examination add column visit uuid references examination;
update examination set visit = id;
alter table examination alter column visit set not null;
create index examination_by_visit on examination (visit);
