DROP TRIGGER hand_of_job; DROP TRIGGER hand_of_intake; DROP TRIGGER hand_of_intake_changed; DROP TRIGGER hand_of_event;
DROP TRIGGER hand_of_mark; DROP TRIGGER hand_of_log; DROP TRIGGER hand_of_check; DROP TRIGGER hand_of_extra;
DROP TRIGGER hand_of_extra_answered; DROP TRIGGER hand_of_photo; DROP TRIGGER hand_of_lesson;
ALTER TABLE jobs DROP COLUMN person_id; ALTER TABLE intake DROP COLUMN person_id;
ALTER TABLE run_events DROP COLUMN person_id; ALTER TABLE pin_marks DROP COLUMN person_id;
ALTER TABLE job_log DROP COLUMN person_id; ALTER TABLE check_entries DROP COLUMN person_id;
ALTER TABLE extras DROP COLUMN person_id; ALTER TABLE job_photos DROP COLUMN person_id;
ALTER TABLE lessons DROP COLUMN person_id;
DROP TABLE invitations; DROP TABLE hand; DROP TABLE sessions; DROP TABLE devices; DROP TABLE people;
