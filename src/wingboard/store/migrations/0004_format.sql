-- Which format of the document a revision's snapshot and patch are in. A revision of another format than the one
-- before it always holds a snapshot.
ALTER TABLE revision ADD COLUMN format INTEGER NOT NULL DEFAULT 1;
