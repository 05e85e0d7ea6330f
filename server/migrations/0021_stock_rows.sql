-- What each worth of a stock valuation rested on: its rows copied, and the state of everything it was reckoned from.
ALTER TABLE stock_valuation ADD COLUMN known JSON NULL;
CREATE TABLE stock_valuation_piece (
  valuation_id CHAR(26) NOT NULL,
  piece_id     CHAR(26) NOT NULL,
  grounds      JSON NOT NULL,
  PRIMARY KEY (valuation_id, piece_id),
  CONSTRAINT grounds_of_valuation FOREIGN KEY (valuation_id) REFERENCES stock_valuation (id)
);
