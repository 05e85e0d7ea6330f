-- What is followed, by the shop or by a customer: a rule over the reference, and what was said of single slots of it.
CREATE TABLE series (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  version       INT UNSIGNED NOT NULL DEFAULT 1,
  name          VARCHAR(160) NOT NULL,
  contact_id    CHAR(26) NULL,
  rule          JSON NOT NULL,
  -- condition index below which the best example is to be replaced
  upgrade_below DECIMAL(5, 2) NULL,
  note          VARCHAR(1000) NOT NULL DEFAULT '',
  created_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX series_name (name, id),
  FOREIGN KEY (contact_id) REFERENCES contact (id)
);
CREATE TABLE series_wish (
  series_id   CHAR(26) NOT NULL,
  slot_key    VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  wish        VARCHAR(8) NOT NULL CHECK (wish IN ('want', 'have', 'skip')),
  at_most     DECIMAL(18, 3) NULL,
  currency    CHAR(3) NULL,
  least_index DECIMAL(5, 2) NULL,
  PRIMARY KEY (series_id, slot_key),
  FOREIGN KEY (series_id) REFERENCES series (id) ON DELETE CASCADE
);
-- Whether a form can be bought new, as it was noted on a day; the reference's own ids, which may come and go.
CREATE TABLE availability_note (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  variant_id VARCHAR(80) NOT NULL,
  state      VARCHAR(16) NOT NULL CHECK (state IN ('in-production', 'in-shops', 'sold-out', 'discontinued')),
  on_day     DATE NOT NULL,
  source     VARCHAR(300) NOT NULL,
  noted_by   VARCHAR(160) NOT NULL,
  noted_at   DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  INDEX availability_of (variant_id, on_day)
);
