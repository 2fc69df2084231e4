-- Several servers on one database: each is told what another changed, and the ranges that are to be worked out wait in one queue that all share.

-- How long the application waits is said by its role: a pooler between it and the database takes no such word from a connection.
alter role awl_app set statement_timeout = '15s';
alter role awl_app set lock_timeout = '5s';
alter role awl_app set idle_in_transaction_session_timeout = '30s';

create table range_job (
  examination_id uuid primary key,
  site_id uuid not null references site,
  due_at timestamptz not null,
  claimed_until timestamptz,
  tries int not null default 0,
  foreign key (examination_id, site_id) references examination (id, site_id)
);
comment on table range_job is 'unsigned examinations whose range is to be worked out, once nothing more was recorded for a moment';
comment on column range_job.claimed_until is 'until then one server works on it; afterwards, if it died, another may';
create index range_job_by_due on range_job (due_at);

create function add_range_job(examination uuid) returns void language sql security definer set search_path = public, pg_temp
  as $$ insert into range_job as j (examination_id, site_id, due_at) select e.id, e.site_id, now() + interval '3 seconds'
          from examination e where e.id = examination and e.signed_at is null and e.discarded_at is null
        on conflict (examination_id) do update set due_at = excluded.due_at, tries = 0 $$;

-- No two servers claim the same. What failed three times is left alone until something is recorded again: a list works it out when it is asked for it.
create function claim_range_jobs(most int) returns table (examination uuid, site uuid, due text) language sql volatile security definer set search_path = public, pg_temp
  as $$ update range_job j set claimed_until = now() + interval '30 seconds', tries = j.tries + 1
        where j.examination_id in (select examination_id from range_job where due_at <= now() and coalesce(claimed_until, '-infinity') < now() and tries < 3
                                   order by due_at limit most for update skip locked)
        returning j.examination_id, j.site_id, j.due_at::text $$;
-- Done, unless something was recorded while it was worked out: then it waits again.
create function finish_range_job(examination uuid, due text) returns void language plpgsql security definer set search_path = public, pg_temp as $$
begin
  delete from range_job where examination_id = examination and due_at = due::timestamptz;
  update range_job set claimed_until = null where examination_id = examination;
end $$;

-- What is told names what changed by its id, never what it says: whoever hears it asks, and is answered as far as they may read.
create function tell_changed(what text, site uuid, id uuid, entries int) returns void language sql
  as $$ select pg_notify('awl_changed', json_strip_nulls(json_build_object('what', what, 'site', site, 'id', id, 'entries', entries))::text) $$;
create function tell_row() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  perform tell_changed(tg_argv[0], new.site_id, (to_jsonb(new) ->> tg_argv[1])::uuid, null);
  if tg_table_name = 'examination' then perform add_range_job(new.id); end if;
  return null;
end $$;
create trigger is_told after insert or update on examination for each row execute function tell_row('examination', 'id');
create trigger is_told after insert on verdict for each row execute function tell_row('examination', 'examination_id');
create trigger is_told after insert or update on patient for each row execute function tell_row('patient', 'id');
create trigger is_told after insert on referral for each row execute function tell_row('referral', 'id');
create trigger is_told after insert on referral_event for each row execute function tell_row('referral', 'referral_id');
create trigger is_told after insert or update on standing_range for each row execute function tell_row('range', 'examination_id');

create or replace function count_entries() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  insert into entry_count as c (examination_id, site_id, entries) select examination_id, site_id, count(*) from added group by examination_id, site_id
    on conflict (examination_id) do update set entries = c.entries + excluded.entries;
  perform tell_changed('entries', c.site_id, c.examination_id, c.entries), add_range_job(c.examination_id)
    from entry_count c where c.examination_id in (select examination_id from added);
  return null;
end $$;

revoke execute on function add_range_job(uuid), claim_range_jobs(int), finish_range_job(uuid, text), tell_changed(text, uuid, uuid, int), tell_row() from public;
grant execute on function claim_range_jobs(int), finish_range_job(uuid, text) to awl_app;
