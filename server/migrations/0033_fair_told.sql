-- what no longer held when a note made at a fair came in
ALTER TABLE fair_note ADD COLUMN told JSON NOT NULL DEFAULT '[]';
