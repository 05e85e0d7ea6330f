-- Who did what: the ledger asked by person or by kind.
ALTER TABLE ledger_entry
  ADD INDEX ledger_person (person, seq),
  ADD INDEX ledger_kind (kind, seq);
