-- How a project's folder is read: what it holds, and the base address where a person gave one.
ALTER TABLE projects ADD COLUMN read_as TEXT NOT NULL DEFAULT 'tell by content';
ALTER TABLE projects ADD COLUMN given_base TEXT;
-- What a person corrected on what was read, as JSON; the version counts up with each change.
ALTER TABLE projects ADD COLUMN amendments TEXT NOT NULL DEFAULT '{}';
ALTER TABLE projects ADD COLUMN amendments_version INTEGER NOT NULL DEFAULT 1;
