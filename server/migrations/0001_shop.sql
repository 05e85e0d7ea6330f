-- The shop, its people, and the machinery every copy of the server shares.

CREATE TABLE shop (
  id            TINYINT UNSIGNED NOT NULL PRIMARY KEY CHECK (id = 1),
  name          VARCHAR(160) NOT NULL,
  base_currency CHAR(3) NOT NULL,
  stock_scheme  VARCHAR(40) NOT NULL,
  next_stock    INT UNSIGNED NOT NULL DEFAULT 1,
  next_invoice  INT UNSIGNED NOT NULL DEFAULT 1,
  created_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

CREATE TABLE person (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  name          VARCHAR(160) NOT NULL,
  email         VARCHAR(200) NOT NULL UNIQUE,
  role          VARCHAR(20) NOT NULL CHECK (role IN ('owner', 'appraiser', 'clerk', 'reader')),
  password_hash VARCHAR(255) NOT NULL,
  created_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

-- The cookie carries a secret; only its SHA-256 is stored.
CREATE TABLE session (
  token_hash CHAR(64) NOT NULL PRIMARY KEY,
  person_id  CHAR(26) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  INDEX session_expiry (expires_at)
);

CREATE TABLE rate_counter (
  counter_key VARCHAR(200) NOT NULL PRIMARY KEY,
  hits        INT UNSIGNED NOT NULL,
  resets_at   DATETIME(3) NOT NULL
);

-- The first answer to a request that creates; written in the transaction that creates.
CREATE TABLE idempotency_key (
  person_id    CHAR(26) NOT NULL,
  request_key  VARCHAR(200) NOT NULL,
  request_hash CHAR(64) NOT NULL,
  status       SMALLINT UNSIGNED NULL,
  body         JSON NULL,
  created_at   DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (person_id, request_key),
  INDEX idempotency_age (created_at)
);

CREATE TABLE job (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  kind       VARCHAR(40) NOT NULL,
  state      VARCHAR(12) NOT NULL DEFAULT 'queued' CHECK (state IN ('queued', 'running', 'done', 'failed', 'cancelled')),
  payload    LONGTEXT NOT NULL,
  progress   DECIMAL(5, 4) NOT NULL DEFAULT 0,
  result     JSON NULL,
  person_id  CHAR(26) NOT NULL,
  heartbeat  DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX job_queue (state, created_at)
);

-- Counters that tell every copy of the server when what it remembers has grown old.
CREATE TABLE revision (
  name   VARCHAR(40) NOT NULL PRIMARY KEY,
  number BIGINT UNSIGNED NOT NULL DEFAULT 0
);
INSERT INTO revision (name) VALUES ('reference'), ('comparables'), ('rates');

-- Append only: each entry is hashed over the one before it.
CREATE TABLE ledger_entry (
  seq       BIGINT UNSIGNED NOT NULL PRIMARY KEY,
  piece_id  CHAR(26) NULL,
  kind      VARCHAR(40) NOT NULL,
  at        CHAR(24) NOT NULL,
  person_id CHAR(26) NOT NULL,
  person    VARCHAR(160) NOT NULL,
  body      LONGTEXT NOT NULL,
  previous  CHAR(64) NOT NULL,
  hash      CHAR(64) NOT NULL,
  INDEX ledger_piece (piece_id, seq)
);
CREATE TABLE ledger_head (
  id   TINYINT UNSIGNED NOT NULL PRIMARY KEY CHECK (id = 1),
  seq  BIGINT UNSIGNED NOT NULL,
  hash CHAR(64) NOT NULL
);
INSERT INTO ledger_head VALUES (1, 0, REPEAT('0', 64));
