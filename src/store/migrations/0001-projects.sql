CREATE TABLE projects (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE snapshots (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  read_at TEXT NOT NULL,
  -- The snapshot as compressed JSON.
  body BLOB NOT NULL
) STRICT;

CREATE INDEX snapshots_of_project ON snapshots (project_id, read_at);

-- Minified text of the modules of a snapshot, for exact sizes.
CREATE TABLE texts (
  snapshot_id TEXT PRIMARY KEY REFERENCES snapshots (id) ON DELETE CASCADE,
  body BLOB NOT NULL
) STRICT;

CREATE TABLE plans (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  description TEXT NOT NULL,
  decisions TEXT NOT NULL,
  -- Counts up with each change, so that two writers notice each other.
  version INTEGER NOT NULL,
  changed_at TEXT NOT NULL,
  UNIQUE (project_id, name)
) STRICT;
