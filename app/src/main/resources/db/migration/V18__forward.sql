-- jobs brought forward to level a fleet's months: to which month (its first day), and the act-by day they had then
CREATE TABLE vehicle_forward (
    vehicle_id BIGINT PRIMARY KEY REFERENCES vehicle (id) ON DELETE CASCADE,
    to_month   DATE         NOT NULL,
    from_day   DATE         NOT NULL,
    made_by    VARCHAR(120) NOT NULL,
    made_at    TIMESTAMP WITH TIME ZONE NOT NULL
);
