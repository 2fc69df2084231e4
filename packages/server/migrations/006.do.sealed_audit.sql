-- The chain of audit rows is sealed by the server with a key that the database does not hold, one row after the other as the last statement
-- of its transaction. Rows of before keep the seals that they have: made here, without a key.
drop trigger seal on audit;
drop function seal_audit();
alter table audit alter column seq drop identity;
alter table audit alter column at drop default;
alter table audit add column is_keyed boolean not null default false;
alter table audit alter column is_keyed set default true;
comment on column audit.seq is 'without a gap, in the order of sealing';
comment on column audit.hash is 'HMAC-SHA256 of previous hash, seq, site, account, action, about and time as canonical JSON; without a key where is_keyed is false';

-- What is only added to is not emptied either, by nobody.
create trigger never_emptied before truncate on entry execute function never_change();
create trigger never_emptied before truncate on verdict execute function never_change();
create trigger never_emptied before truncate on referral_event execute function never_change();
create trigger never_emptied before truncate on audit execute function never_change();
