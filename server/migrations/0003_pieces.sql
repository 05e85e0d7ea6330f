-- A piece from intake to sale. Every change raises `version` and adds a ledger entry in the same transaction.

CREATE TABLE piece (
  id               CHAR(26) NOT NULL PRIMARY KEY,
  stock_number     VARCHAR(60) NOT NULL UNIQUE,
  version          INT UNSIGNED NOT NULL DEFAULT 1,
  stage            VARCHAR(12) NOT NULL,
  title            VARCHAR(160) NOT NULL,
  construction     VARCHAR(20) NOT NULL,
  source_kind      VARCHAR(20) NULL,
  source_name      VARCHAR(160) NOT NULL DEFAULT '',
  source_place     VARCHAR(160) NOT NULL DEFAULT '',
  acquired         VARCHAR(120) NULL,
  acquired_from    DATE NULL,
  acquired_to      DATE NULL,
  price            DECIMAL(18, 3) NULL CHECK (price >= 0),
  price_currency   CHAR(3) NULL,
  seller_statement TEXT NOT NULL,
  came_with        TEXT NOT NULL,
  as_found         VARCHAR(24) NULL,
  completeness     JSON NOT NULL,
  inspected        BOOLEAN NOT NULL DEFAULT FALSE,
  attribution      JSON NULL,
  ask              DECIMAL(18, 3) NULL CHECK (ask >= 0),
  ask_currency     CHAR(3) NULL,
  floor_price      DECIMAL(18, 3) NULL,
  floor_currency   CHAR(3) NULL,
  pricing_note     VARCHAR(1000) NOT NULL DEFAULT '',
  created_at       DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  changed_at       DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX piece_stage (stage, id),
  INDEX piece_acquired (acquired_from, acquired_to),
  FULLTEXT INDEX piece_words (title, stock_number, source_name, seller_statement)
);

CREATE TABLE picture (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  piece_id CHAR(26) NOT NULL,
  hash     CHAR(64) NOT NULL,
  caption  VARCHAR(200) NOT NULL,
  width    INT UNSIGNED NOT NULL,
  height   INT UNSIGNED NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  INDEX picture_of_piece (piece_id, id)
);

CREATE TABLE observation (
  piece_id CHAR(26) NOT NULL,
  subject  VARCHAR(120) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position SMALLINT UNSIGNED NOT NULL,
  body     JSON NOT NULL,
  PRIMARY KEY (piece_id, subject),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);

CREATE TABLE finding (
  piece_id CHAR(26) NOT NULL,
  position SMALLINT UNSIGNED NOT NULL,
  part     VARCHAR(20) NOT NULL,
  defect   VARCHAR(20) NOT NULL,
  severity VARCHAR(10) NULL,
  measure  DECIMAL(7, 2) NULL,
  times    SMALLINT UNSIGNED NULL,
  side     VARCHAR(40) NULL,
  note     VARCHAR(500) NULL,
  PRIMARY KEY (piece_id, position),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);

CREATE TABLE custody_event (
  piece_id  CHAR(26) NOT NULL,
  position  SMALLINT UNSIGNED NOT NULL,
  holder    VARCHAR(200) NOT NULL,
  private   BOOLEAN NOT NULL,
  place     VARCHAR(200) NULL,
  period    VARCHAR(120) NOT NULL,
  held_from DATE NULL,
  held_to   DATE NULL,
  how       VARCHAR(500) NULL,
  evidence  VARCHAR(20) NOT NULL,
  note      TEXT NULL,
  PRIMARY KEY (piece_id, position),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);

-- The last computed readings, with what they were computed from; recomputed when any of it has moved.
CREATE TABLE piece_reading (
  piece_id CHAR(26) NOT NULL PRIMARY KEY,
  basis    VARCHAR(200) NOT NULL,
  body     JSON NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);

CREATE TABLE listing (
  piece_id        CHAR(26) NOT NULL PRIMARY KEY,
  state           VARCHAR(10) NOT NULL CHECK (state IN ('draft', 'published', 'ended')),
  title           VARCHAR(300) NOT NULL,
  body            TEXT NOT NULL,
  published_at    DATETIME(3) NULL,
  marketplace_ref VARCHAR(120) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);

CREATE TABLE market_message (
  id          CHAR(26) NOT NULL PRIMARY KEY,
  piece_id    CHAR(26) NOT NULL,
  outside_id  VARCHAR(120) NOT NULL UNIQUE,
  kind        VARCHAR(10) NOT NULL CHECK (kind IN ('question', 'offer')),
  sender      VARCHAR(160) NOT NULL,
  words       TEXT NOT NULL,
  amount      DECIMAL(18, 3) NULL,
  currency    CHAR(3) NULL,
  state       VARCHAR(10) NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'answered', 'accepted', 'declined')),
  answer      TEXT NULL,
  received_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (piece_id) REFERENCES listing (piece_id) ON DELETE CASCADE
);

CREATE TABLE sale (
  id               CHAR(26) NOT NULL PRIMARY KEY,
  piece_id         CHAR(26) NOT NULL UNIQUE,
  invoice_number   VARCHAR(40) NOT NULL UNIQUE,
  sold_at          DATETIME(3) NOT NULL,
  buyer_name       VARCHAR(200) NOT NULL,
  buyer_address    VARCHAR(500) NOT NULL,
  price            DECIMAL(18, 3) NOT NULL CHECK (price >= 0),
  currency         CHAR(3) NOT NULL,
  net              JSON NOT NULL,
  cost             DECIMAL(18, 3) NULL,
  cost_currency    CHAR(3) NULL,
  margin           DECIMAL(18, 3) NULL,
  certificate_code CHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  certificate      LONGTEXT NOT NULL,
  ledger_seq       BIGINT UNSIGNED NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id)
);
