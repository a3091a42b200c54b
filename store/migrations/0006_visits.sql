-- Up Migration

-- The same vehicle comes again: its earlier visits are looked up by what it was booked in as.
create index fact_vehicle on fact (lower(body ->> 'vehicle')) where kind = 'booking';
