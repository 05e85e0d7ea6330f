-- A listing in a second language; what carriers asked for a piece, where the shop took it; when a listing runs out.
CREATE TABLE listing_text (
  piece_id CHAR(26) NOT NULL,
  language CHAR(2) NOT NULL,
  title VARCHAR(300) NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (piece_id, language),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
CREATE TABLE piece_postage (
  piece_id CHAR(26) NOT NULL PRIMARY KEY,
  asked_on DATE NOT NULL,
  quotes JSON NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
ALTER TABLE listing ADD COLUMN expires_on DATE NULL;
