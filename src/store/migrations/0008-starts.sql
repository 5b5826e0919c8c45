-- Files that a person named as what starts the app, as a JSON list.
ALTER TABLE projects ADD COLUMN starts TEXT NOT NULL DEFAULT '[]';
