-- What all designs share: machines, stock, supplies and the builder's own parts, as they were last set.
CREATE TABLE shelf (
    kind TEXT NOT NULL CHECK (kind IN ('machine', 'stock', 'supply', 'part')),
    id TEXT NOT NULL,
    document TEXT NOT NULL,
    kept_at TEXT NOT NULL,
    PRIMARY KEY (kind, id)
) STRICT;
