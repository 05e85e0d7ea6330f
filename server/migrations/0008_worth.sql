-- Comparables that can be searched, set aside, merged and undone; the fitted market, kept for every copy of the server;
-- overrides, lots, channels, fair notes and offers.

ALTER TABLE comparable
  ADD COLUMN venue          VARCHAR(200) NULL,
  ADD COLUMN grade_scale    VARCHAR(12) NULL,
  ADD COLUMN grade          VARCHAR(16) NULL,
  -- venue, source and note without case and accents
  ADD COLUMN words          VARCHAR(240) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
  ADD COLUMN state          VARCHAR(10) NOT NULL DEFAULT 'kept' CHECK (state IN ('kept', 'merged', 'set-aside')),
  ADD COLUMN state_reason   VARCHAR(300) NULL,
  ADD COLUMN merged_into    CHAR(26) NULL,
  -- revision of the comparables in which the row came or its state changed, and the one of the change before that
  ADD COLUMN changed_in     BIGINT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN changed_before BIGINT UNSIGNED NULL,
  ADD COLUMN import_id      CHAR(26) NULL,
  ADD FOREIGN KEY (merged_into) REFERENCES comparable (id),
  ADD INDEX comparable_changed (changed_in),
  ADD INDEX comparable_of_import (import_id),
  DROP INDEX comparable_newest,
  -- whatever is searched for is found in the index alone, in the order in which it is shown; only what is shown is read
  ADD INDEX comparable_newest (sale_day DESC, id DESC, state, price_kind, venue_kind, currency, pattern_id, variant_id, words);
UPDATE comparable SET
  venue = LEFT(JSON_VALUE(cells, '$.venue'), 200),
  grade_scale = JSON_VALUE(cells, '$.grade_scale'),
  grade = JSON_VALUE(cells, '$.grade'),
  words = LOWER(LEFT(CONCAT_WS(' ', JSON_VALUE(cells, '$.venue'), JSON_VALUE(cells, '$.source'), JSON_VALUE(cells, '$.note')), 240));

CREATE TABLE comparable_import (
  id        CHAR(26) NOT NULL PRIMARY KEY,
  name      VARCHAR(200) NOT NULL,
  person    VARCHAR(160) NOT NULL,
  rows_in   INT UNSIGNED NOT NULL,
  undone_at DATETIME(3) NULL,
  at        DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

-- Where a rate comes from: a source by its name, a file, or whoever sent it.
ALTER TABLE exchange_rate ADD COLUMN source VARCHAR(120) NOT NULL DEFAULT '';

-- How a shop's own files name their columns, remembered by their header.
CREATE TABLE column_mapping (
  header_hash CHAR(64) NOT NULL PRIMARY KEY,
  mapping     JSON NOT NULL,
  used_at     DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

-- What was learned of the market, with what it rests on.
CREATE TABLE market_fit (
  id          CHAR(26) NOT NULL PRIMARY KEY,
  as_of       DATE NOT NULL,
  engine      VARCHAR(20) NOT NULL,
  reference   BIGINT UNSIGNED NOT NULL,
  comparables BIGINT UNSIGNED NOT NULL,
  rates       BIGINT UNSIGNED NOT NULL,
  body        LONGBLOB NOT NULL,
  made_at     DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX market_fit_newest (engine, made_at)
);

-- One price for many pieces. A piece of a lot has its cost from the lot.
CREATE TABLE lot (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  version       INT UNSIGNED NOT NULL DEFAULT 1,
  name          VARCHAR(160) NOT NULL,
  source_kind   VARCHAR(20) NULL,
  source_name   VARCHAR(160) NOT NULL,
  acquired      VARCHAR(120) NULL,
  currency      CHAR(3) NOT NULL,
  method        VARCHAR(16) NOT NULL CHECK (method IN ('relative-value', 'equal', 'manual')),
  costs         JSON NOT NULL,
  note          VARCHAR(2000) NOT NULL,
  created_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);
ALTER TABLE piece
  ADD COLUMN lot_id    CHAR(26) NULL,
  ADD COLUMN lot_value DECIMAL(18, 3) NULL CHECK (lot_value >= 0),
  ADD COLUMN lot_share DECIMAL(18, 3) NULL,
  ADD COLUMN keep      BOOLEAN NOT NULL DEFAULT FALSE,
  ADD FOREIGN KEY (lot_id) REFERENCES lot (id);

-- The shop's channels, margins and habits of buying: one document.
CREATE TABLE worth_settings (
  id      TINYINT UNSIGNED NOT NULL PRIMARY KEY CHECK (id = 1),
  version INT UNSIGNED NOT NULL,
  body    JSON NOT NULL
);

-- Lines of an estimate that somebody challenged, and why. None is deleted: it ends.
CREATE TABLE estimate_override (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  piece_id      CHAR(26) NOT NULL,
  comparable_id CHAR(26) NOT NULL,
  line          VARCHAR(40) NOT NULL,
  percent       DECIMAL(9, 4) NULL,
  reason        VARCHAR(500) NOT NULL,
  person        VARCHAR(160) NOT NULL,
  at            DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  ended_at      DATETIME(3) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (comparable_id) REFERENCES comparable (id),
  INDEX override_of_piece (piece_id, ended_at)
);

-- Decisions at a fair, sent when there is a connection again.
CREATE TABLE fair_note (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  noted_at DATETIME(3) NOT NULL,
  body     JSON NOT NULL,
  person   VARCHAR(160) NOT NULL,
  piece_id CHAR(26) NULL,
  picture  CHAR(64) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  INDEX fair_note_newest (noted_at)
);

-- The whole stock valued on a day, as it was: totals to follow, and the pieces to hold the next one against.
CREATE TABLE stock_valuation (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  person   VARCHAR(160) NOT NULL,
  currency CHAR(3) NOT NULL,
  pieces   INT UNSIGNED NOT NULL,
  cost     DECIMAL(18, 3) NOT NULL,
  worth    DECIMAL(18, 3) NOT NULL,
  body     JSON NOT NULL,
  at       DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

-- Offers as they were judged, and what was decided.
CREATE TABLE offer (
  id        CHAR(26) NOT NULL PRIMARY KEY,
  piece_id  CHAR(26) NOT NULL,
  person    VARCHAR(160) NOT NULL,
  bidder    VARCHAR(160) NOT NULL,
  amount    DECIMAL(18, 3) NOT NULL CHECK (amount > 0),
  currency  CHAR(3) NOT NULL,
  judgement JSON NOT NULL,
  decision  VARCHAR(10) NOT NULL CHECK (decision IN ('taken', 'countered', 'refused')),
  counter   DECIMAL(18, 3) NULL,
  note      VARCHAR(500) NOT NULL,
  at        DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  INDEX offer_of_piece (piece_id, at)
);
