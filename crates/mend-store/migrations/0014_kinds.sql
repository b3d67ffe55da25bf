-- A picture of what was found while inside.
ALTER TABLE extras ADD COLUMN photo_id INTEGER REFERENCES photos (id);
-- The lists have a figure for each stop, and there is one more; which of them a job has follows from its kind.
DELETE FROM job_index;
