-- Letterhead, terms and wording as they were when a paper went out: printed again, it is the same.
ALTER TABLE sale ADD COLUMN issuer JSON NULL;
ALTER TABLE credit_note ADD COLUMN issuer JSON NULL;
