-- +goose Up
-- What the kitchen has of its own: prices and stock of things by their id,
-- ingredients that are not in the program's larder, and jars made ahead. Each
-- ingredient and each jar is one document, as typed.
CREATE TABLE IF NOT EXISTS larder_things (
    thing      VARCHAR(64)  NOT NULL PRIMARY KEY,
    price      VARCHAR(100) NOT NULL DEFAULT '',
    stock      VARCHAR(100) NOT NULL DEFAULT '',
    updated_at DATETIME(3)  NOT NULL
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS own_ingredients (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    version    INT UNSIGNED    NOT NULL DEFAULT 1,
    name       VARCHAR(200)    NOT NULL,
    body       LONGTEXT        NOT NULL,
    created_at DATETIME(3)     NOT NULL,
    updated_at DATETIME(3)     NOT NULL,
    deleted_at DATETIME(3)     NULL
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS jars LIKE own_ingredients;

-- +goose Down
DROP TABLE IF EXISTS jars;
DROP TABLE IF EXISTS own_ingredients;
DROP TABLE IF EXISTS larder_things;
