-- The whole stock as a list: what it is asked by has its index; where a piece lies; views that a person kept.
ALTER TABLE piece
  ADD COLUMN place VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN pattern_id VARCHAR(80) AS (JSON_VALUE(attribution, '$.pattern')) STORED,
  ADD INDEX piece_pattern (pattern_id, id),
  ADD INDEX piece_place (place, id),
  ADD INDEX piece_title (title, id),
  ADD INDEX piece_changed (changed_at, id),
  ADD INDEX piece_ask (ask_currency, ask, id),
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
