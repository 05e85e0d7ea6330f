-- a reissue, licensed copy or reproduction that was bought as one
ALTER TABLE piece ADD COLUMN taken_in_as VARCHAR(20) NULL CHECK (taken_in_as IN ('reissue', 'licensed-copy', 'reproduction'));
