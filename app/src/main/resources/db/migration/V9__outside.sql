-- What lies outside the workshop: devices and services, none of which is connected until somebody says so, and deliveries.

CREATE TABLE outside (
    id                   INT PRIMARY KEY CHECK (id = 1),
    fault_codes_stand_in BOOLEAN      NOT NULL,
    belt_meter_stand_in  BOOLEAN      NOT NULL,
    parts_stand_in       BOOLEAN      NOT NULL,
    delivery_name        VARCHAR(30)  NOT NULL,
    -- days of the week; empty: any working day
    delivery_days        VARCHAR(80)  NOT NULL,
    version              INT          NOT NULL,
    changed_by           VARCHAR(120) NOT NULL
);

INSERT INTO outside VALUES (1, FALSE, FALSE, FALSE, 'delivery', '', 1, '');
