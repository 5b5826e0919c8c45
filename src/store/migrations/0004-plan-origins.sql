-- The plan that another one began as a copy of, by its name within the project.
ALTER TABLE plans ADD COLUMN based_on TEXT;
