-- Stock that comes in by a list: how such a list was read, what it brought, and which pictures it named for each piece.
ALTER TABLE column_mapping
  ADD COLUMN kind VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'prices' FIRST,
  DROP PRIMARY KEY,
  ADD PRIMARY KEY (kind, header_hash);
CREATE TABLE stock_list (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  name     VARCHAR(200) NOT NULL,
  person   VARCHAR(160) NOT NULL,
  at       DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  taken_in INT UNSIGNED NOT NULL
);
-- what a row said, hashed: the same list again brings nothing twice
CREATE TABLE stock_list_row (
  piece_id CHAR(26) NOT NULL PRIMARY KEY,
  list_id  CHAR(26) NOT NULL,
  line     INT UNSIGNED NOT NULL,
  row_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  -- names of files
  pictures JSON NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (list_id) REFERENCES stock_list (id),
  INDEX row_of_list (list_id, line)
);
-- the shop's own words on a piece, for its own people
ALTER TABLE piece
  ADD COLUMN shop_note TEXT NOT NULL DEFAULT '',
  ADD FULLTEXT INDEX piece_note (shop_note);
