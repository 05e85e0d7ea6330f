-- Pictures in an order of one's own, in a frame, with their scale; taken away they can come back.
ALTER TABLE picture
  ADD COLUMN position INT UNSIGNED NOT NULL DEFAULT 1000,
  ADD COLUMN removed TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN frame JSON NULL,
  ADD COLUMN mm_per_pixel DOUBLE NULL,
  ADD COLUMN shown_hash CHAR(64) NULL;
