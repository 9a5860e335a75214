-- +goose Up
-- What a probe showed in a minute, of readings that are over a day old: the first, last, lowest and
-- highest of them, and how many there were.
CREATE TABLE IF NOT EXISTS minutes (
    cook     CHAR(36)     NOT NULL,
    probe    VARCHAR(100) NOT NULL,
    at_ms    BIGINT       NOT NULL,
    first_ms BIGINT       NOT NULL,
    last_ms  BIGINT       NOT NULL,
    first_c  DOUBLE       NOT NULL,
    last_c   DOUBLE       NOT NULL,
    low_c    DOUBLE       NOT NULL,
    high_c   DOUBLE       NOT NULL,
    count    INT UNSIGNED NOT NULL,
    PRIMARY KEY (cook, probe, at_ms)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_bin;

-- What happened lately is asked for every few seconds.
ALTER TABLE facts ADD INDEX IF NOT EXISTS by_time (created_at, kind);

-- +goose Down
DROP TABLE IF EXISTS minutes;
