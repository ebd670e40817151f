-- When a design was removed from the list; it is kept, and can be brought back.
ALTER TABLE design ADD COLUMN removed_at TEXT;
