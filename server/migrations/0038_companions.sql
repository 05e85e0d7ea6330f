-- pieces that were found together and belong together; each pair once, the earlier piece first
CREATE TABLE companion (
  piece_id CHAR(26) NOT NULL,
  with_id CHAR(26) NOT NULL,
  PRIMARY KEY (piece_id, with_id),
  INDEX companion_with (with_id),
  FOREIGN KEY (piece_id) REFERENCES piece (id),
  FOREIGN KEY (with_id) REFERENCES piece (id),
  CHECK (piece_id < with_id)
);
