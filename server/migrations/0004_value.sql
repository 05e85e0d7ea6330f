-- Comparable sales and exchange rates.

CREATE TABLE exchange_rate (
  currency CHAR(3) NOT NULL,
  day      DATE NOT NULL,
  rate     DECIMAL(24, 12) NOT NULL CHECK (rate > 0),
  PRIMARY KEY (currency, day)
);

CREATE TABLE comparable (
  id                CHAR(26) NOT NULL PRIMARY KEY,
  -- SHA-256 over the normalised cells: the same row goes in once
  row_hash          CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  sale_date         VARCHAR(10) NOT NULL,
  sale_day          DATE NOT NULL,
  price             DECIMAL(18, 3) NOT NULL CHECK (price > 0),
  currency          CHAR(3) NOT NULL,
  price_kind        VARCHAR(10) NOT NULL CHECK (price_kind IN ('sold', 'asking', 'offer')),
  venue_kind        VARCHAR(10) NOT NULL CHECK (venue_kind IN ('auction', 'retail', 'fair', 'private', 'online')),
  pattern_id        VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  variant_id        VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NULL,
  condition_index   DECIMAL(5, 2) NULL,
  box               VARCHAR(16) NULL,
  papers            VARCHAR(16) NULL,
  sheath            VARCHAR(16) NULL,
  alterations       VARCHAR(120) NOT NULL DEFAULT '',
  buyer_premium_pct DECIMAL(7, 3) NULL,
  shipping_included BOOLEAN NOT NULL DEFAULT FALSE,
  cells             JSON NOT NULL,
  piece_id          CHAR(26) NULL,
  added_at          DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (pattern_id) REFERENCES reference_pattern (id),
  FOREIGN KEY (variant_id) REFERENCES reference_variant (id),
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  INDEX comparable_newest (sale_day DESC, id DESC),
  INDEX comparable_of_pattern (pattern_id, sale_day DESC, id DESC),
  INDEX comparable_of_variant (variant_id, sale_day DESC, id DESC)
);
