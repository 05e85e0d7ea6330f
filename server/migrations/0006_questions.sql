-- What nobody can explain yet about a piece, and numbers the shop watches for.

CREATE TABLE piece_question (
  id          CHAR(26) NOT NULL PRIMARY KEY,
  piece_id    CHAR(26) NOT NULL,
  asked       VARCHAR(2000) NOT NULL,
  asked_by    VARCHAR(160) NOT NULL,
  asked_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  answer      VARCHAR(2000) NULL,
  answered_by VARCHAR(160) NULL,
  answered_at DATETIME(3) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  INDEX question_open (answered_at, id)
);

CREATE TABLE watched_number (
  id       CHAR(26) NOT NULL PRIMARY KEY,
  code_id  VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  text     VARCHAR(80) NOT NULL,
  note     VARCHAR(500) NOT NULL DEFAULT '',
  added_by VARCHAR(160) NOT NULL,
  added_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  UNIQUE KEY watched_once (code_id, text)
);

-- numbers seen before are looked up by what they are about
CREATE INDEX observation_subject ON observation (subject);
