-- +goose Up
-- The cook's own formulas. A formula is one document, as typed; every version of
-- it is kept, with what was changed.
CREATE TABLE IF NOT EXISTS formulas (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    version    INT UNSIGNED    NOT NULL DEFAULT 1,
    name       VARCHAR(200)    NOT NULL,
    kind       VARCHAR(16)     NOT NULL DEFAULT 'rub',
    note       VARCHAR(1000)   NOT NULL DEFAULT '',
    tags       VARCHAR(400)    NOT NULL DEFAULT '',
    body       LONGTEXT        NOT NULL,
    created_at DATETIME(3)     NOT NULL,
    updated_at DATETIME(3)     NOT NULL,
    deleted_at DATETIME(3)     NULL,
    INDEX by_name (deleted_at, name, id)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS formula_versions (
    formula_id BIGINT UNSIGNED NOT NULL,
    version    INT UNSIGNED    NOT NULL,
    body       LONGTEXT        NOT NULL,
    changes    TEXT            NOT NULL,
    saved_at   DATETIME(3)     NOT NULL,
    PRIMARY KEY (formula_id, version),
    FOREIGN KEY (formula_id) REFERENCES formulas (id) ON DELETE CASCADE
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- A rub may hold another formula as a row.
ALTER TABLE rub_rows ADD COLUMN IF NOT EXISTS formula VARCHAR(64) NOT NULL DEFAULT '' AFTER form;
ALTER TABLE pieces
    ADD COLUMN IF NOT EXISTS formula_kind VARCHAR(16)  NOT NULL DEFAULT '' AFTER formula_note,
    ADD COLUMN IF NOT EXISTS formula_tags VARCHAR(400) NOT NULL DEFAULT '' AFTER formula_kind;

-- +goose Down
ALTER TABLE pieces DROP COLUMN IF EXISTS formula_tags, DROP COLUMN IF EXISTS formula_kind;
ALTER TABLE rub_rows DROP COLUMN IF EXISTS formula;
DROP TABLE IF EXISTS formula_versions;
DROP TABLE IF EXISTS formulas;
