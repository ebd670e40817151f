-- A design and its history. Revisions are only ever added.
CREATE TABLE design (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    head INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    kept_at TEXT NOT NULL
) STRICT;

CREATE TABLE revision (
    design_id TEXT NOT NULL REFERENCES design (id),
    number INTEGER NOT NULL,
    kept_at TEXT NOT NULL,
    label TEXT NOT NULL,
    batch_key TEXT,
    commands TEXT NOT NULL,
    patch TEXT NOT NULL,
    snapshot TEXT,
    undo_to INTEGER,
    redo_to INTEGER,
    PRIMARY KEY (design_id, number),
    UNIQUE (design_id, batch_key)
) STRICT;

CREATE TRIGGER revision_is_never_changed BEFORE UPDATE ON revision
BEGIN
    SELECT RAISE (ABORT, 'revisions are only added');
END;

CREATE TRIGGER revision_is_never_removed BEFORE DELETE ON revision
BEGIN
    SELECT RAISE (ABORT, 'revisions are only added');
END;
