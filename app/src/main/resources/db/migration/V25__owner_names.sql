-- by which an owner is found again that a list names: without it every line of a list looked through all owners.
-- A small letter may be longer than its capital.
ALTER TABLE owner ADD COLUMN name_key VARCHAR(360) GENERATED ALWAYS AS (LOWER(TRIM(name)));
CREATE INDEX owner_name_key ON owner (name_key);
