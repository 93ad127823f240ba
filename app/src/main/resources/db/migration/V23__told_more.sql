-- owners are told of more than promises: that it is ready later, that it grew dearer than they agreed to
ALTER TABLE to_tell ADD COLUMN what VARCHAR(10) NOT NULL DEFAULT 'PROMISE';
ALTER TABLE to_tell ADD COLUMN words VARCHAR(200) NOT NULL DEFAULT '';
ALTER TABLE to_tell ALTER COLUMN promised DROP NOT NULL;

-- what a job came to when its owner had answered every line, total with tax in minor units
CREATE TABLE agreed_price (
    job_id      BIGINT PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE,
    total_minor BIGINT NOT NULL
);
