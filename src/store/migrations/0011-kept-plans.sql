-- The text of the file beside a project's code in which its plans are kept, as both agreed last; null where none is.
ALTER TABLE projects ADD COLUMN kept_text TEXT;
