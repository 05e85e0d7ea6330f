-- What the ranges a house stated are multiplied by, from how they held against its own sales; by the revision it came in.
CREATE TABLE house_record (
  number  BIGINT UNSIGNED NOT NULL PRIMARY KEY,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  sold    INT UNSIGNED NOT NULL,
  held    INT UNSIGNED NOT NULL,
  stretch DOUBLE NOT NULL
);
INSERT INTO revision (name) VALUES ('record');
