-- What the owner opens to readers: costs, floors, margins, buyers; nothing until it is said.
ALTER TABLE shop ADD COLUMN reader_sees JSON NULL;
