-- Folder on this machine that a project was read from; null for projects that were brought as a file.
ALTER TABLE projects ADD COLUMN folder TEXT;
