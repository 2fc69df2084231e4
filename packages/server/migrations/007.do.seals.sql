-- What a verdict was reached on, sealed with the key of the audit: the verdict, sides, time, setting, signer, pack, and every entry by its id.
create table seal (
  verdict_id uuid primary key references verdict,
  site_id uuid not null references site,
  entries uuid[] not null,
  hash text not null
);
comment on column seal.entries is 'the entries that there were';
comment on column seal.hash is 'HMAC-SHA256 of the sealed content as canonical JSON (RFC 8785)';
create trigger append_only before update or delete on seal for each row execute function never_change();
create trigger never_emptied before truncate on seal execute function never_change();
alter table seal enable row level security;
create policy own_site on seal using (site_id = nullif(current_setting('awl.site', true), '')::uuid);
grant select, insert on seal to awl_app;
