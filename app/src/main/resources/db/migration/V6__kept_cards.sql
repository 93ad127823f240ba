-- A card that was begun keeps the plan it was begun with, and every plan that an entry asked for since.
CREATE TABLE card_plan (
    job_id  BIGINT NOT NULL REFERENCES job (id),
    seq     BIGINT NOT NULL,
    layout  INT    NOT NULL,
    body    CLOB   NOT NULL,
    PRIMARY KEY (job_id, seq)
);

-- The record of a signed job as it was signed, with its hash; nothing that changes later changes it.
CREATE TABLE job_record (
    job_id     BIGINT PRIMARY KEY REFERENCES job (id),
    body       CLOB     NOT NULL,
    sha256     CHAR(64) NOT NULL,
    signed_at  TIMESTAMP WITH TIME ZONE NOT NULL
);
