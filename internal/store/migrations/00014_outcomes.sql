-- +goose Up
-- What became of each cook, worked out from its facts and readings: to list, compare and learn from.
-- told says up to what on record it was worked out, and model by which version of the models.
CREATE TABLE IF NOT EXISTS outcomes (
    cook       CHAR(36)     NOT NULL PRIMARY KEY,
    day        CHAR(10)     NOT NULL,
    name       VARCHAR(200) NOT NULL,
    finished   TINYINT(1)   NOT NULL DEFAULT 0,
    cuts       VARCHAR(1000) NOT NULL DEFAULT '',
    finishes   VARCHAR(200) NOT NULL DEFAULT '',
    pits       VARCHAR(500) NOT NULL DEFAULT '',
    wraps      VARCHAR(200) NOT NULL DEFAULT '',
    formulas   VARCHAR(1000) NOT NULL DEFAULT '',
    weather    VARCHAR(20)  NOT NULL DEFAULT '',
    score      DOUBLE       NOT NULL DEFAULT 0,
    model      INT          NOT NULL,
    told       VARCHAR(100) NOT NULL,
    body       LONGTEXT     NOT NULL,
    updated_at DATETIME(3)  NOT NULL,
    INDEX by_day (day, cook)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- +goose Down
DROP TABLE IF EXISTS outcomes;
