-- Source text of the app's own scripts as they were read, for edits that are handed over.
CREATE TABLE sources (
  snapshot_id TEXT PRIMARY KEY REFERENCES snapshots (id) ON DELETE CASCADE,
  body BLOB NOT NULL
) STRICT;
