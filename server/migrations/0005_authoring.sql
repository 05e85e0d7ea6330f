-- A shop writes its reference itself: each thing has a version, and there are stories (open, refuted, supported).

ALTER TABLE reference_source  ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_maker   ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_feature ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_pattern ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_code    ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_mark    ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_window  ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE reference_variant ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;

CREATE TABLE reference_story (
  id      VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name    VARCHAR(2000) NOT NULL,
  body    LONGTEXT NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1
);
