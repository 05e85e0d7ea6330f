-- What stands on the shop's papers, and the key it signs certificates with (Ed25519; the secret never leaves the server).
CREATE TABLE paper_settings (
  id      TINYINT UNSIGNED NOT NULL PRIMARY KEY DEFAULT 1 CHECK (id = 1),
  version INT UNSIGNED NOT NULL,
  body    JSON NOT NULL
);
CREATE TABLE signing_key (
  id         TINYINT UNSIGNED NOT NULL PRIMARY KEY DEFAULT 1 CHECK (id = 1),
  public_key BINARY(32) NOT NULL,
  secret_key BINARY(32) NOT NULL,
  made_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);
ALTER TABLE shop
  ADD COLUMN next_credit     INT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN next_settlement INT UNSIGNED NOT NULL DEFAULT 1;

-- People and bodies the shop buys from and sells to.
CREATE TABLE contact (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  version    INT UNSIGNED NOT NULL DEFAULT 1,
  name       VARCHAR(200) NOT NULL,
  address    VARCHAR(500) NOT NULL DEFAULT '',
  email      VARCHAR(200) NOT NULL DEFAULT '',
  phone      VARCHAR(60) NOT NULL DEFAULT '',
  tax_number VARCHAR(60) NOT NULL DEFAULT '',
  note       VARCHAR(2000) NOT NULL DEFAULT '',
  -- what they agreed to be told, and when
  consent_on DATE NULL,
  consent_to VARCHAR(300) NOT NULL DEFAULT '',
  erased_at  DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX contact_by_name (name)
);

-- A piece that came back may be sold again.
ALTER TABLE sale
  ADD INDEX sale_of_piece (piece_id, id),
  DROP INDEX piece_id,
  ADD COLUMN contact_id        CHAR(26) NULL,
  ADD COLUMN buyer_salt        CHAR(32) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN tax_scheme        JSON NULL,
  ADD COLUMN condition_then    JSON NULL,
  ADD COLUMN payout            JSON NULL,
  ADD COLUMN due_on            DATE NULL,
  ADD COLUMN sent              JSON NULL,
  ADD COLUMN returned_on       DATE NULL,
  ADD COLUMN withdrawn_at      DATETIME(3) NULL,
  ADD COLUMN withdrawn_because VARCHAR(500) NULL,
  ADD COLUMN credential        LONGTEXT NULL,
  ADD COLUMN comparable_id     CHAR(26) NULL,
  ADD FOREIGN KEY (contact_id) REFERENCES contact (id);

CREATE TABLE payment (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  sale_id  CHAR(26) NOT NULL,
  amount   DECIMAL(18, 3) NOT NULL,
  paid_on  DATE NOT NULL,
  way      VARCHAR(80) NOT NULL,
  note     VARCHAR(300) NOT NULL DEFAULT '',
  noted_by VARCHAR(160) NOT NULL,
  noted_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (sale_id) REFERENCES sale (id)
);

CREATE TABLE credit_note (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  sale_id    CHAR(26) NOT NULL,
  number     VARCHAR(40) NOT NULL UNIQUE,
  issued_at  DATETIME(3) NOT NULL,
  given_on   DATE NOT NULL,
  piece_back BOOLEAN NOT NULL,
  reason     VARCHAR(500) NOT NULL,
  came_back  VARCHAR(500) NOT NULL DEFAULT '',
  refund     DECIMAL(18, 3) NOT NULL CHECK (refund >= 0),
  fees_back  DECIMAL(18, 3) NOT NULL DEFAULT 0,
  -- by how much the tax of the sale changes
  tax        DECIMAL(18, 3) NOT NULL DEFAULT 0,
  noted_by   VARCHAR(160) NOT NULL,
  FOREIGN KEY (sale_id) REFERENCES sale (id)
);

-- A piece that is kept for somebody; one at a time.
CREATE TABLE reservation (
  piece_id   CHAR(26) NOT NULL PRIMARY KEY,
  contact_id CHAR(26) NULL,
  name       VARCHAR(200) NOT NULL,
  until_day  DATE NOT NULL,
  deposit    DECIMAL(18, 3) NULL,
  currency   CHAR(3) NULL,
  way        VARCHAR(80) NOT NULL DEFAULT '',
  paid_on    DATE NULL,
  note       VARCHAR(500) NOT NULL DEFAULT '',
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  FOREIGN KEY (contact_id) REFERENCES contact (id)
);

-- A piece that belongs to somebody else and is sold for them.
CREATE TABLE consignment (
  piece_id   CHAR(26) NOT NULL PRIMARY KEY,
  contact_id CHAR(26) NOT NULL,
  agreed_on  DATE NOT NULL,
  until_day  DATE NULL,
  terms      JSON NOT NULL,
  note       VARCHAR(500) NOT NULL DEFAULT '',
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  FOREIGN KEY (contact_id) REFERENCES contact (id)
);
CREATE TABLE settlement (
  sale_id    CHAR(26) NOT NULL PRIMARY KEY,
  number     VARCHAR(40) NOT NULL UNIQUE,
  paid_on    DATE NULL,
  way        VARCHAR(80) NOT NULL DEFAULT '',
  made_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (sale_id) REFERENCES sale (id)
);
UPDATE sale SET tax_scheme = IF(
  COALESCE(JSON_VALUE(net, '$.tax'), 0) > 0,
  COALESCE((SELECT JSON_EXTRACT(body, '$.tax') FROM pricing_settings WHERE id = 1), '{"on":"none","pct":0}'),
  '{"on":"none","pct":0}'
);
