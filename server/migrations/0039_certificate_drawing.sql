-- the piece as it was drawn on the day of its sale, for a certificate that has no photograph; older sales have none
ALTER TABLE sale ADD COLUMN drawing JSON NULL;
