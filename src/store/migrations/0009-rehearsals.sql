-- Landings that were run in a browser. The decisions are those of the plan as it was then.
CREATE TABLE rehearsals (
  id TEXT PRIMARY KEY,
  project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
  -- The snapshot that the project had then; it may be gone.
  snapshot_id TEXT NOT NULL,
  decisions TEXT NOT NULL,
  made_at TEXT NOT NULL,
  -- What lists say of it, as JSON.
  summary TEXT NOT NULL,
  -- All that was measured, as compressed JSON (gzip).
  body BLOB NOT NULL
) STRICT;
CREATE INDEX rehearsals_of_project ON rehearsals (project_id, made_at);
-- Whether a person allowed that the project's code is run on this machine.
ALTER TABLE projects ADD COLUMN may_run INTEGER NOT NULL DEFAULT 0;
