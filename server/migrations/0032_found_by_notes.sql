-- What is written of pieces is found without reading all of it: notes of findings by their words, numbers by how they begin.
ALTER TABLE finding ADD FULLTEXT INDEX finding_words (note);
ALTER TABLE observation
  ADD COLUMN said VARCHAR(160) AS (
    LEFT(COALESCE(JSON_VALUE(body, '$.number'), IF(JSON_VALUE(body, '$.code') IS NULL, NULL, JSON_VALUE(body, '$.text'))), 160)
  ) VIRTUAL,
  ADD INDEX observation_said (said);
