-- Which format of the document a revision's snapshot and patch are in. A revision of another format than the one
-- before it always holds a snapshot. And the fingerprint of what was asked under a batch's key.
ALTER TABLE revision ADD COLUMN format INTEGER NOT NULL DEFAULT 1;

ALTER TABLE revision ADD COLUMN asked TEXT;
