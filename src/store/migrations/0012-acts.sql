-- A rehearsal may hold several acts, one after the other, where it held one.
UPDATE rehearsals
SET summary = json_set(json_remove(summary, '$.act'), '$.acts', json_array(json_extract(summary, '$.act')))
WHERE json_extract(summary, '$.act') IS NOT NULL;
