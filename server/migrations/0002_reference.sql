-- Reference packs. Each thing is stored once, as it was written; a pack lists the things it holds.

CREATE TABLE reference_pack (
  id          VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  title       VARCHAR(2000) NOT NULL,
  revision    VARCHAR(80) NOT NULL,
  head        LONGTEXT NOT NULL,
  imported_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);

CREATE TABLE reference_pack_item (
  pack_id  VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  section  VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item_id  VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT UNSIGNED NOT NULL,
  PRIMARY KEY (pack_id, section, item_id),
  FOREIGN KEY (pack_id) REFERENCES reference_pack (id) ON DELETE CASCADE
);

CREATE TABLE reference_source (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_maker (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_feature (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_pattern (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL,
  maker_id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  FOREIGN KEY (maker_id) REFERENCES reference_maker (id)
);
CREATE TABLE reference_code (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_mark (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_window (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL
);
CREATE TABLE reference_variant (
  id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, name VARCHAR(2000) NOT NULL, body LONGTEXT NOT NULL,
  pattern_id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  FOREIGN KEY (pattern_id) REFERENCES reference_pattern (id)
);
