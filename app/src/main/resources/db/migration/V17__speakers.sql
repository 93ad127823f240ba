-- who may answer for an owner, a name a line; none: anybody
ALTER TABLE owner ADD COLUMN speakers VARCHAR(1100) NOT NULL DEFAULT '';
