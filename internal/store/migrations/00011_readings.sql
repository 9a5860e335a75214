-- +goose Up
-- What thermometers showed, added and never changed. Readings are handed in together, under a
-- UUID of the sender's: the same hand-in twice is once, told by the digest of what was sent.
CREATE TABLE IF NOT EXISTS hand_ins (
    id         CHAR(36)        NOT NULL PRIMARY KEY,
    cook       CHAR(36)        NOT NULL,
    device     VARCHAR(60)     NOT NULL DEFAULT '',
    digest     CHAR(64)        NOT NULL,
    count      INT UNSIGNED    NOT NULL,
    created_at DATETIME(3)     NOT NULL,
    INDEX of_cook (cook, created_at)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS readings (
    seq        BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    cook       CHAR(36)        NOT NULL,
    hand_in    CHAR(36)        NOT NULL,
    probe      VARCHAR(100)    NOT NULL,
    at_ms      BIGINT          NOT NULL,
    celsius    DOUBLE          NOT NULL,
    INDEX of_cook (cook, seq),
    INDEX of_hand_in (hand_in)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- A cook whose clock is not the one on the wall: it is practised on simulated instruments. At real
-- time began_ms it was cook_ms there, and it goes speed times as fast.
CREATE TABLE IF NOT EXISTS clocks (
    cook       CHAR(36)        NOT NULL PRIMARY KEY,
    began_ms   BIGINT          NOT NULL,
    cook_ms    BIGINT          NOT NULL,
    speed      DOUBLE          NOT NULL,
    seed       BIGINT UNSIGNED NOT NULL,
    running    TINYINT(1)      NOT NULL DEFAULT 0,
    INDEX of_running (running)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- +goose Down
DROP TABLE IF EXISTS clocks;
DROP TABLE IF EXISTS readings;
DROP TABLE IF EXISTS hand_ins;
