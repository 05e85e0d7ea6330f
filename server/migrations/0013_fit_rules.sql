-- Grade words in prices are read by the rules in use: a fit names the revision of them it read by.
ALTER TABLE market_fit ADD COLUMN rules BIGINT UNSIGNED NOT NULL DEFAULT 0;
