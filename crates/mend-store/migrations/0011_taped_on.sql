-- The component that the bench's thermometer is taped onto; empty: beside the part.
ALTER TABLE runs ADD COLUMN taped_on TEXT NOT NULL DEFAULT '';
