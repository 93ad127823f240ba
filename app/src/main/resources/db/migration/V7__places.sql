-- Bays and fleets are made, changed and retired by the workshop; what was used stays for the jobs that name it.
ALTER TABLE bay ADD active BOOLEAN DEFAULT TRUE NOT NULL;
ALTER TABLE bay ADD version INT DEFAULT 1 NOT NULL;
ALTER TABLE fleet ADD active BOOLEAN DEFAULT TRUE NOT NULL;
