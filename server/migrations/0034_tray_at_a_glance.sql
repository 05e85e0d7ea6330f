-- The tray is asked for all day: its sums and its newest slips come from indexes alone, however large the stock.
ALTER TABLE piece
  ADD INDEX piece_sums (stage, price_currency, ask_currency, price, ask),
  ADD INDEX piece_newest (stage, changed_at, id);
