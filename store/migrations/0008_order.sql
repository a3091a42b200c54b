-- Up Migration

-- The last fact of the job that the speaker of a fact had seen: its place in the order, whenever it arrives.
alter table fact add column said_after uuid;

-- What a card was made by: the version of the code and the house's choices. One made by something else is made anew when a list is read.
alter table job_card add column made text not null default '';
