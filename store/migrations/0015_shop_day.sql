-- Up Migration

-- What day it is in the shop, or was at some moment, wherever the server stands: when something is due, and whether it is late, go by it. A zone that the database does not
-- know counts as the server's own.
create function shop_day(at timestamptz default now()) returns date language plpgsql stable set search_path = public, pg_temp as $$
begin
  return (at at time zone coalesce(
    (select value #>> '{}' from house_setting where key = 'timeZone' order by seq desc limit 1),
    current_setting('TimeZone')))::date;
exception when invalid_parameter_value then
  return at::date;
end $$;

-- What came last.
create index purchase_event_by_time on purchase_event (at desc);
