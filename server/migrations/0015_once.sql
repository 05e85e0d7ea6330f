-- A change whose answer is reckoned keeps the word it is told from; an answer keeps its headers.
ALTER TABLE idempotency_key
  ADD COLUMN result  JSON NULL,
  ADD COLUMN headers JSON NULL;
-- Keys of sign-in, set-up and new accounts carried a hash that a password could be guessed against.
DELETE FROM idempotency_key;
