-- The whole stock as a list: what it is asked by has its index; where a piece lies; views that a person kept.
ALTER TABLE piece
  ADD COLUMN place VARCHAR(120) NOT NULL DEFAULT '',
  ADD INDEX piece_pattern (decided_pattern, id),
  ADD INDEX piece_place (place, id),
  ADD INDEX piece_title (title, id),
  ADD INDEX piece_changed (changed_at, id),
  -- what has no price comes last, whichever way prices are put in order
  ADD COLUMN ask_low DECIMAL(18, 3) AS (COALESCE(ask, -1)) VIRTUAL,
  ADD COLUMN ask_high DECIMAL(18, 3) AS (COALESCE(ask, 999999999999)) VIRTUAL,
  ADD INDEX piece_ask_low (ask_low, id),
  ADD INDEX piece_ask_high (ask_high, id),
  ADD INDEX piece_ask_currency (ask_currency),
  ADD INDEX piece_source (source_name, id),
  ADD INDEX piece_construction (construction, id);
ALTER TABLE piece_reading
  ADD COLUMN warned TINYINT(1) AS (
    COALESCE(JSON_VALUE(body, '$.trail.problems'), '0') <> '0'
    OR COALESCE(JSON_VALUE(body, '$.when.conflict'), 'false') IN ('true', '1')
    OR COALESCE(JSON_VALUE(body, '$.which.tier'), '') IN ('rejected', 'doubtful')
  ) STORED,
  ADD INDEX reading_warned (warned, piece_id);
CREATE TABLE kept_view (
  person_id CHAR(26) NOT NULL,
  name      VARCHAR(80) NOT NULL,
  asks      VARCHAR(1000) NOT NULL,
  PRIMARY KEY (person_id, name),
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
);
