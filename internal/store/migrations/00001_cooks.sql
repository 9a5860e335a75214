-- +goose Up
-- A cook's page, its pieces, and the rows of each piece's rub, as they were
-- typed: amounts are text ("4 lb 6 oz"), and nothing that can be computed is kept.
CREATE TABLE IF NOT EXISTS cooks (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    version    INT UNSIGNED    NOT NULL DEFAULT 1,
    name       VARCHAR(200)    NOT NULL,
    serve_at   VARCHAR(16)     NOT NULL DEFAULT '',
    zone       VARCHAR(64)     NOT NULL DEFAULT '',
    guests     INT             NOT NULL DEFAULT 0,
    serving    VARCHAR(80)     NOT NULL DEFAULT '',
    fridge     VARCHAR(80)     NOT NULL DEFAULT '',
    room       VARCHAR(80)     NOT NULL DEFAULT '',
    created_at DATETIME(3)     NOT NULL,
    updated_at DATETIME(3)     NOT NULL,
    deleted_at DATETIME(3)     NULL,
    INDEX by_serving (deleted_at, serve_at, id)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS pieces (
    id            BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    cook_id       BIGINT UNSIGNED NOT NULL,
    position      INT             NOT NULL,
    label         VARCHAR(200)    NOT NULL DEFAULT '',
    cut           VARCHAR(64)     NOT NULL,
    pieces        INT             NOT NULL DEFAULT 1,
    bought        VARCHAR(80)     NOT NULL DEFAULT '',
    trimmed       VARCHAR(80)     NOT NULL DEFAULT '',
    together      BOOLEAN         NOT NULL DEFAULT FALSE,
    trim_style    VARCHAR(16)     NOT NULL DEFAULT '',
    thickness     VARCHAR(80)     NOT NULL DEFAULT '',
    faces         VARCHAR(8)      NOT NULL DEFAULT '',
    mode          VARCHAR(16)     NOT NULL DEFAULT '',
    target        VARCHAR(80)     NOT NULL DEFAULT '',
    coat          VARCHAR(16)     NOT NULL DEFAULT '',
    binder        BOOLEAN         NOT NULL DEFAULT FALSE,
    band          VARCHAR(16)     NOT NULL DEFAULT '',
    spare         VARCHAR(80)     NOT NULL DEFAULT '',
    formula       VARCHAR(64)     NOT NULL DEFAULT '',
    formula_name  VARCHAR(200)    NOT NULL DEFAULT '',
    formula_note  VARCHAR(1000)   NOT NULL DEFAULT '',
    formula_basis VARCHAR(16)     NOT NULL DEFAULT '',
    wait_style    VARCHAR(16)     NOT NULL DEFAULT '',
    wait_for      VARCHAR(80)     NOT NULL DEFAULT '',
    wait_open     BOOLEAN         NOT NULL DEFAULT FALSE,
    pit           VARCHAR(80)     NOT NULL DEFAULT '',
    fire_time     VARCHAR(80)     NOT NULL DEFAULT '',
    rest          VARCHAR(80)     NOT NULL DEFAULT '',
    temper        VARCHAR(80)     NOT NULL DEFAULT '',
    UNIQUE INDEX in_order (cook_id, position),
    FOREIGN KEY (cook_id) REFERENCES cooks (id) ON DELETE CASCADE
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

CREATE TABLE IF NOT EXISTS rub_rows (
    id         BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    piece_id   BIGINT UNSIGNED NOT NULL,
    position   INT             NOT NULL,
    ingredient VARCHAR(64)     NOT NULL,
    form       VARCHAR(64)     NOT NULL DEFAULT '',
    parts      VARCHAR(80)     NOT NULL DEFAULT '',
    UNIQUE INDEX in_order (piece_id, position),
    FOREIGN KEY (piece_id) REFERENCES pieces (id) ON DELETE CASCADE
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- +goose Down
DROP TABLE IF EXISTS rub_rows;
DROP TABLE IF EXISTS pieces;
DROP TABLE IF EXISTS cooks;
