-- Reference pictures, kept once by their content.
CREATE TABLE picture (
    sha256 TEXT PRIMARY KEY CHECK (length(sha256) = 64),
    media TEXT NOT NULL CHECK (media IN ('image/png', 'image/jpeg')),
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    content BLOB NOT NULL,
    kept_at TEXT NOT NULL
) STRICT;
