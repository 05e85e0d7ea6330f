-- What was known when. Every number a revision has had, with its moment; and what counted once and no longer does, with
-- the revisions between which it did: an answer of any day can be made again from what was known on that day.
CREATE TABLE revision_log (
  name   VARCHAR(40) NOT NULL,
  number BIGINT UNSIGNED NOT NULL,
  at     DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (name, number),
  INDEX revision_of_day (name, at)
);
INSERT INTO revision_log (name, number, at)
  SELECT 'comparables', changed_in, MIN(added_at) FROM comparable GROUP BY changed_in;
INSERT IGNORE INTO revision_log (name, number) SELECT name, number FROM revision;

CREATE TABLE comparable_past (
  comparable_id CHAR(26) NOT NULL,
  known_from    BIGINT UNSIGNED NOT NULL,
  known_to      BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (comparable_id, known_to),
  FOREIGN KEY (comparable_id) REFERENCES comparable (id)
);
INSERT INTO comparable_past (comparable_id, known_from, known_to)
  SELECT id, changed_before, changed_in FROM comparable WHERE state <> 'kept' AND changed_before IS NOT NULL;

ALTER TABLE exchange_rate ADD COLUMN known_from BIGINT UNSIGNED NOT NULL DEFAULT 0;
CREATE TABLE exchange_rate_past (
  currency   CHAR(3) NOT NULL,
  day        DATE NOT NULL,
  rate       DECIMAL(24, 12) NOT NULL,
  source     VARCHAR(120) NOT NULL,
  known_from BIGINT UNSIGNED NOT NULL,
  known_to   BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (currency, day, known_to)
);

-- What the price regression took from the reference, kept once for everything that rests on it.
CREATE TABLE market_reference (
  fingerprint CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  body        LONGBLOB NOT NULL
);

-- Appraisals as they were made: never changed, never deleted.
CREATE TABLE appraisal (
  id             CHAR(26) NOT NULL PRIMARY KEY,
  piece_id       CHAR(26) NOT NULL,
  number         VARCHAR(20) NOT NULL UNIQUE,
  person         VARCHAR(160) NOT NULL,
  effective_date DATE NOT NULL,
  made_at        DATETIME(3) NOT NULL,
  currency       CHAR(3) NOT NULL,
  concluded      DECIMAL(18, 3) NOT NULL,
  -- canonical JSON, as it was hashed
  record         LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  fingerprint    CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ledger_seq     BIGINT UNSIGNED NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  INDEX appraisal_of_piece (piece_id, id DESC)
);
ALTER TABLE shop ADD COLUMN next_appraisal INT UNSIGNED NOT NULL DEFAULT 1;
