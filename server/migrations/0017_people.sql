-- People leave, and their names stay on what they did; sessions are told apart by whoever owns them; a second factor.
ALTER TABLE person
  ADD COLUMN removed_at   DATETIME(3) NULL,
  ADD COLUMN totp_secret  VARCHAR(64) CHARACTER SET ascii NULL,
  ADD COLUMN totp_since   DATETIME(3) NULL,
  ADD COLUMN totp_counter BIGINT UNSIGNED NULL;
ALTER TABLE session
  ADD COLUMN id         CHAR(26) NULL UNIQUE,
  ADD COLUMN begun_at   DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  ADD COLUMN seen_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  ADD COLUMN address    VARCHAR(64) NOT NULL DEFAULT '',
  ADD COLUMN agent      VARCHAR(200) NOT NULL DEFAULT '';
UPDATE session SET id = LEFT(UPPER(token_hash), 26) WHERE id IS NULL;
