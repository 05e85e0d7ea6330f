-- What the shop has met: decisions and running numbers (revision "encounters"), and whether they are learnt from.

INSERT INTO revision (name) VALUES ('encounters');

ALTER TABLE shop
  ADD COLUMN learns_frequency BOOLEAN NOT NULL DEFAULT TRUE;

ALTER TABLE piece
  ADD COLUMN decided_variant VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin
    AS (JSON_VALUE(attribution, '$.variant')) VIRTUAL,
  ADD COLUMN decided_pattern VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin
    AS (JSON_VALUE(attribution, '$.pattern')) VIRTUAL,
  ADD COLUMN decided_tier VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin
    AS (JSON_VALUE(attribution, '$.tier')) VIRTUAL,
  ADD INDEX piece_decided (decided_tier, decided_variant, decided_pattern);

ALTER TABLE comparable
  ADD INDEX comparable_met (price_kind, state, variant_id, pattern_id, piece_id);

-- What a person at the bench knows without the engine: makers and patterns that narrow the question.
ALTER TABLE piece
  ADD COLUMN narrowing JSON NULL;

-- Work done by the maker itself, apart from aftermarket; and the school a piece is quoted in, where somebody chose it.
ALTER TABLE finding
  ADD COLUMN by_maker BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE piece
  ADD COLUMN quoted JSON NULL;
