-- +goose Up
-- What a cook's plan is made from besides its pieces (guests of all kinds, quiet
-- hours, pits, what has happened, what was acknowledged), as typed: one JSON
-- document. A piece's document now also holds its decisions and marks. Photographs
-- are kept beside the cook, made small and stripped of everything but the picture.
ALTER TABLE cooks ADD COLUMN IF NOT EXISTS plan LONGTEXT NOT NULL DEFAULT '';

CREATE TABLE IF NOT EXISTS photos (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    cook_id    BIGINT UNSIGNED NOT NULL,
    piece      VARCHAR(60)     NOT NULL DEFAULT '',
    note       VARCHAR(400)    NOT NULL DEFAULT '',
    width      INT UNSIGNED    NOT NULL,
    height     INT UNSIGNED    NOT NULL,
    data       MEDIUMBLOB      NOT NULL,
    created_at DATETIME(3)     NOT NULL,
    deleted_at DATETIME(3)     NULL,
    FOREIGN KEY (cook_id) REFERENCES cooks (id) ON DELETE CASCADE,
    INDEX of_cook (cook_id, deleted_at, id)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- +goose Down
DROP TABLE IF EXISTS photos;
ALTER TABLE cooks DROP COLUMN IF EXISTS plan;
