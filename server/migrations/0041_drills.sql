-- What each person has learnt, one row a question; the library's own figures of a memory.
CREATE TABLE drill_card (
  person_id      CHAR(26) NOT NULL,
  question       VARCHAR(300) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  basis          CHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  due            DATETIME(3) NOT NULL,
  stability      DOUBLE NOT NULL,
  difficulty     DOUBLE NOT NULL,
  elapsed_days   INT NOT NULL,
  scheduled_days INT NOT NULL,
  learning_steps INT NOT NULL,
  reps           INT UNSIGNED NOT NULL,
  lapses         INT UNSIGNED NOT NULL,
  state          TINYINT UNSIGNED NOT NULL,
  last_review    DATETIME(3) NULL,
  PRIMARY KEY (person_id, question),
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
CREATE TABLE drill_day (
  person_id CHAR(26) NOT NULL,
  day       DATE NOT NULL,
  right_n   INT UNSIGNED NOT NULL DEFAULT 0,
  wrong_n   INT UNSIGNED NOT NULL DEFAULT 0,
  PRIMARY KEY (person_id, day),
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
