-- the batch of what was fitted, where somebody read it off; empty where nobody did
ALTER TABLE renewal ADD COLUMN batch VARCHAR(60) DEFAULT '' NOT NULL;

-- a follow-up of a recall belongs to no job where the part was fitted elsewhere
ALTER TABLE follow_up ALTER COLUMN job_id DROP NOT NULL;
