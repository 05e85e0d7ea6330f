-- A piece that went back to whoever it came from: to the owner it was to be sold for, or to the seller of a lot.
CREATE TABLE given_back (
  piece_id CHAR(26) NOT NULL PRIMARY KEY,
  given_on DATE NOT NULL,
  to_whom VARCHAR(200) NOT NULL,
  because VARCHAR(500) NOT NULL,
  refund DECIMAL(18, 3) NULL,
  currency CHAR(3) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
