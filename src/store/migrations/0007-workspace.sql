-- The folder around a project's folder whose files may be read too, where a person allowed it.
ALTER TABLE projects ADD COLUMN workspace TEXT;
