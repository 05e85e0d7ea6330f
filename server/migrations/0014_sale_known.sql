-- What was known when a piece was sold, its own sale left out: what it was worth then is reckoned from that for ever.
ALTER TABLE sale
  ADD COLUMN known_comparables BIGINT UNSIGNED NULL,
  ADD COLUMN known_rates       BIGINT UNSIGNED NULL;
