-- One stock, several channels: where a piece is offered beside the marketplace, until it is taken down there.
CREATE TABLE offered_at (
  piece_id   CHAR(26) NOT NULL,
  channel_id VARCHAR(80) NOT NULL,
  name       VARCHAR(120) NOT NULL,
  since      DATE NOT NULL,
  PRIMARY KEY (piece_id, channel_id),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
