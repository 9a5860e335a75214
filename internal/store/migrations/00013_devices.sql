-- +goose Up
-- What measures at a cook: each has a key of its own, of which only the digest is kept.
CREATE TABLE IF NOT EXISTS devices (
    id         CHAR(36)     NOT NULL PRIMARY KEY,
    cook       CHAR(36)     NOT NULL,
    name       VARCHAR(60)  NOT NULL,
    digest     CHAR(64)     NOT NULL,
    created_at DATETIME(3)  NOT NULL,
    UNIQUE INDEX of_key (digest),
    INDEX of_cook (cook, created_at)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- +goose Down
DROP TABLE IF EXISTS devices;
