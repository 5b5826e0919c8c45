-- Limits on time to interactive were once kept under the name "quiet". Quotes inside a JSON text are escaped, so that only the
-- key and its value can match, never a name that somebody gave.
UPDATE projects
SET amendments = replace(amendments, '"measure":"quiet"', '"measure":"time to interactive"')
WHERE amendments LIKE '%"measure":"quiet"%';
