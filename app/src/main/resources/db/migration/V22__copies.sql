-- how often each paper was printed: the copy's number stands on it
CREATE TABLE paper_copy (
    paper    VARCHAR(60)  NOT NULL PRIMARY KEY,
    copies   INT          NOT NULL,
    last_at  TIMESTAMP WITH TIME ZONE NOT NULL,
    last_by  VARCHAR(120) NOT NULL
);

-- who else speaks for a fleet, beside the contact that stands with it
CREATE TABLE fleet_contact (
    fleet_id BIGINT       NOT NULL REFERENCES fleet (id) ON DELETE CASCADE,
    place    INT          NOT NULL,
    name     VARCHAR(120) NOT NULL,
    role     VARCHAR(60)  NOT NULL,
    phone    VARCHAR(40)  NOT NULL,
    email    VARCHAR(200) NOT NULL,
    PRIMARY KEY (fleet_id, place)
);
