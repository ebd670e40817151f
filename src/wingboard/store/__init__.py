"""Keeping: sqlite3 and plain SQL, one module a table family. Knows the record, not the stations."""
