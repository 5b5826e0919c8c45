-- Whether a project is kept in step with its folder while somebody looks at it.
ALTER TABLE projects ADD COLUMN follows INTEGER NOT NULL DEFAULT 1;
-- Whether a snapshot was read because a file was saved: of these only some are kept.
ALTER TABLE snapshots ADD COLUMN after_save INTEGER NOT NULL DEFAULT 0;
