-- What is to be told to services outside: written with the change that decides it, told afterwards until it is answered.
CREATE TABLE IF NOT EXISTS outbox (
  id            CHAR(26) NOT NULL PRIMARY KEY,
  piece_id      CHAR(26) NOT NULL,
  kind          VARCHAR(20) NOT NULL,
  body          JSON NOT NULL,
  state         VARCHAR(10) NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'told', 'refused')),
  attempts      INT UNSIGNED NOT NULL DEFAULT 0,
  problem       VARCHAR(300) NULL,
  next_at       DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  claimed_until DATETIME(3) NULL,
  created_at    DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  told_at       DATETIME(3) NULL,
  INDEX outbox_due (state, next_at),
  INDEX outbox_of_piece (piece_id, state, id),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
