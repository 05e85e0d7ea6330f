-- what was seen and the reference has no value for: found without reading all observations
ALTER TABLE observation
  ADD COLUMN unlisted TINYINT(1) AS (JSON_EXISTS(body, '$.other')) VIRTUAL,
  ADD INDEX observation_unlisted (unlisted, subject);
