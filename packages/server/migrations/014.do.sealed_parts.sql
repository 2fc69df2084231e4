-- Which entry of a signed record was altered, or whether it was the verdict or what the examination itself says: each is sealed by itself too.
alter table seal add column parts jsonb;
comment on column seal.parts is 'HMAC-SHA256 of the verdict, of the examination and of each entry by its id; null for seals of before';
