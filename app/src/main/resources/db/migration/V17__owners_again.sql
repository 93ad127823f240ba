-- what was on file of the owner who stayed when two were made one, as JSON, so that it can be undone
ALTER TABLE owner_change ADD COLUMN to_before VARCHAR(10000);

-- who may answer for an owner, a name a line; none: anybody
ALTER TABLE owner ADD COLUMN speakers VARCHAR(1100) NOT NULL DEFAULT '';
