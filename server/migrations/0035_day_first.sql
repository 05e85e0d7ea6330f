-- in which order this shop reads 12/09/2026
ALTER TABLE shop ADD COLUMN day_first TINYINT(1) NOT NULL DEFAULT 1;
