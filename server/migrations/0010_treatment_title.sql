-- What was done to a piece in words of one's own, where no kind says it.

ALTER TABLE treatment
  ADD COLUMN title VARCHAR(120) NOT NULL DEFAULT '';
