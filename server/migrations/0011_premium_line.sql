-- The line of a premium that nobody told is called by what it is.
UPDATE estimate_override SET line = 'premium not told' WHERE line = 'premium';
