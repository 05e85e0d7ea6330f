-- Papers that prove something of pieces: letters, receipts, packages; what each says of which piece, and whether it holds.
CREATE TABLE document (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  version       INT UNSIGNED NOT NULL DEFAULT 1,
  kind          VARCHAR(20) NOT NULL,
  title         VARCHAR(200) NOT NULL,
  dated         VARCHAR(120) NULL,
  author        VARCHAR(200) NOT NULL DEFAULT '',
  kept_at       VARCHAR(200) NOT NULL DEFAULT '',
  page          VARCHAR(60) NOT NULL DEFAULT '',
  transcription TEXT NOT NULL,
  -- its scan, as it came: SHA-256 of the bytes
  file_hash     CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
  file_name     VARCHAR(200) NULL,
  file_type     VARCHAR(60) NULL,
  file_size     INT UNSIGNED NULL,
  noted_by      VARCHAR(160) NOT NULL,
  noted_at      DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FULLTEXT INDEX document_words (title, author, transcription)
);
CREATE TABLE document_claim (
  document_id CHAR(26) NOT NULL,
  piece_id    CHAR(26) NOT NULL,
  position    INT UNSIGNED NOT NULL,
  body        JSON NOT NULL,
  PRIMARY KEY (document_id, piece_id, position),
  FOREIGN KEY (document_id) REFERENCES document (id),
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  INDEX document_of_piece (piece_id)
);
-- A document that belongs to a piece without saying anything of it yet.
CREATE TABLE document_piece (
  document_id CHAR(26) NOT NULL,
  piece_id    CHAR(26) NOT NULL,
  PRIMARY KEY (document_id, piece_id),
  FOREIGN KEY (document_id) REFERENCES document (id),
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  INDEX piece_of_document (piece_id)
);
-- Museums, firms, services and units, by the names they had and when.
CREATE TABLE body_names (
  id      CHAR(26) NOT NULL PRIMARY KEY,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  names   JSON NOT NULL,
  note    VARCHAR(500) NOT NULL DEFAULT ''
);
INSERT INTO revision (name) VALUES ('trail');
