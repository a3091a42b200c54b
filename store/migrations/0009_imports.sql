-- Up Migration

-- A book that came along with an imported job is that job's: it is pinned to it and never offered as a revision of the shop's own.
alter table book add column offered boolean not null default true;
create index book_offered on book (unit, revision desc) where offered;
