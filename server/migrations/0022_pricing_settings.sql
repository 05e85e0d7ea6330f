-- One name for what a shop reckons prices with.
RENAME TABLE IF EXISTS worth_settings TO pricing_settings;
