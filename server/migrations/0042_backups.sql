-- How often the shop is backed up, and what is kept of it; what came of each.
CREATE TABLE backup_settings (
  id      TINYINT UNSIGNED NOT NULL PRIMARY KEY CHECK (id = 1),
  version INT UNSIGNED NOT NULL DEFAULT 1,
  -- hours; null: nothing is backed up by itself
  every   INT UNSIGNED NULL,
  daily   INT UNSIGNED NOT NULL,
  weekly  INT UNSIGNED NOT NULL,
  monthly INT UNSIGNED NOT NULL
);
INSERT INTO backup_settings (id, every, daily, weekly, monthly) VALUES (1, 24, 7, 5, 12);
CREATE TABLE backup_run (
  id        CHAR(26) NOT NULL PRIMARY KEY,
  begun_at  DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  name      VARCHAR(60) NULL,
  good      BOOLEAN NOT NULL,
  encrypted BOOLEAN NOT NULL DEFAULT FALSE,
  -- bytes of the database and of all files it names
  size      BIGINT UNSIGNED NULL,
  files     INT UNSIGNED NULL,
  -- entries of the ledger that were walked when it was checked
  entries   BIGINT UNSIGNED NULL,
  problem   VARCHAR(500) NULL,
  INDEX backup_when (good, begun_at)
);
