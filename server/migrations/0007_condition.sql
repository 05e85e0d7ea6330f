-- Inspection step by step, condition with a history, treatments, quarantine, parts that moved, rule documents, and
-- blind second gradings.

ALTER TABLE piece ADD COLUMN inspection JSON NULL AFTER inspected;
ALTER TABLE finding ADD COLUMN pin JSON NULL;

INSERT INTO revision (name) VALUES ('rules');

-- A finished inspection and every treatment leave a state; none is ever changed. The first is the piece as found.
CREATE TABLE condition_state (
  id           CHAR(26) NOT NULL PRIMARY KEY,
  piece_id     CHAR(26) NOT NULL,
  why          VARCHAR(16) NOT NULL CHECK (why IN ('as-found', 'inspected-again', 'treated', 'part-moved')),
  body         JSON NOT NULL,
  grade        JSON NOT NULL,
  noted_by     VARCHAR(160) NOT NULL,
  noted_at     DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  INDEX condition_of_piece (piece_id, id)
);

CREATE TABLE treatment (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  piece_id   CHAR(26) NOT NULL,
  state_id   CHAR(26) NOT NULL,
  kind       VARCHAR(20) NOT NULL,
  product    VARCHAR(160) NOT NULL,
  grit       VARCHAR(40) NOT NULL,
  done_on    DATE NOT NULL,
  done_by    VARCHAR(160) NOT NULL,
  reason     VARCHAR(1000) NOT NULL,
  reversible BOOLEAN NOT NULL,
  cost       DECIMAL(18, 3) NULL CHECK (cost >= 0),
  currency   CHAR(3) NULL,
  removed    JSON NOT NULL,
  added      JSON NOT NULL,
  pictures   JSON NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (state_id) REFERENCES condition_state (id) ON DELETE CASCADE,
  INDEX treatment_of_piece (piece_id, done_on, id)
);

CREATE TABLE quarantine (
  id        CHAR(26) NOT NULL PRIMARY KEY,
  piece_id  CHAR(26) NOT NULL,
  since     DATE NOT NULL,
  review_on DATE NOT NULL,
  reason    VARCHAR(500) NOT NULL,
  set_by    VARCHAR(160) NOT NULL,
  ended_on  DATE NULL,
  outcome   VARCHAR(500) NOT NULL DEFAULT '',
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  INDEX quarantine_open (ended_on, review_on)
);

-- A part that went from one piece to another stands on both; either end may lie outside the shop.
CREATE TABLE part_move (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  part       VARCHAR(20) NOT NULL,
  from_piece CHAR(26) NULL,
  from_where VARCHAR(200) NOT NULL,
  to_piece   CHAR(26) NULL,
  to_where   VARCHAR(200) NOT NULL,
  moved_on   VARCHAR(120) NULL,
  why        VARCHAR(20) NOT NULL,
  note       VARCHAR(1000) NOT NULL,
  noted_by   VARCHAR(160) NOT NULL,
  FOREIGN KEY (from_piece) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (to_piece) REFERENCES piece (id) ON DELETE CASCADE
);

-- The shop's own versions of the rule documents; what is shipped needs no row. At most one of a name is in use.
CREATE TABLE rule_document (
  name     VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version  VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  body     JSON NOT NULL,
  note     VARCHAR(500) NOT NULL,
  made_by  VARCHAR(160) NOT NULL,
  made_at  DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  in_use   BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (name, version)
);

CREATE TABLE grading (
  id         CHAR(26) NOT NULL PRIMARY KEY,
  title      VARCHAR(160) NOT NULL,
  set_by     VARCHAR(160) NOT NULL,
  set_at     DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
);
CREATE TABLE grading_piece (
  grading_id CHAR(26) NOT NULL,
  piece_id   CHAR(26) NOT NULL,
  position   SMALLINT UNSIGNED NOT NULL,
  PRIMARY KEY (grading_id, piece_id),
  FOREIGN KEY (grading_id) REFERENCES grading (id) ON DELETE CASCADE,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
CREATE TABLE second_look (
  grading_id CHAR(26) NOT NULL,
  piece_id   CHAR(26) NOT NULL,
  findings   JSON NOT NULL,
  looked_by  VARCHAR(160) NOT NULL,
  looked_at  DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  PRIMARY KEY (grading_id, piece_id),
  FOREIGN KEY (grading_id, piece_id) REFERENCES grading_piece (grading_id, piece_id) ON DELETE CASCADE
);
