-- An offer may be answered with another price.
ALTER TABLE market_message
  MODIFY COLUMN state VARCHAR(10) NOT NULL DEFAULT 'open'
    CHECK (state IN ('open', 'answered', 'accepted', 'declined', 'countered'));
