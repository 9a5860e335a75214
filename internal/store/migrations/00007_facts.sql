-- +goose Up
-- What happened at a cook, added and never changed: what was done and when, what was
-- ticked off, which stops were read. A sender's UUID makes sending twice harmless.
CREATE TABLE IF NOT EXISTS facts (
    seq        BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
    id         CHAR(36)        NOT NULL,
    cook_id    BIGINT UNSIGNED NOT NULL,
    kind       VARCHAR(16)     NOT NULL,
    piece      VARCHAR(60)     NOT NULL DEFAULT '',
    what       VARCHAR(1000)   NOT NULL DEFAULT '',
    happened   VARCHAR(40)     NOT NULL DEFAULT '',
    author     VARCHAR(200)    NOT NULL DEFAULT '',
    body       TEXT            NOT NULL,
    created_at DATETIME(3)     NOT NULL,
    UNIQUE INDEX by_id (id),
    INDEX of_cook (cook_id, seq),
    FOREIGN KEY (cook_id) REFERENCES cooks (id) ON DELETE CASCADE
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- What was marked as done, and which stops were acknowledged, stood in the cook's own
-- document. The ids are made of the cook and the place in its list, so that running
-- this again adds nothing.
INSERT IGNORE INTO facts (id, cook_id, kind, piece, what, happened, body, created_at)
SELECT CONCAT(LEFT(MD5(CONCAT('mark', c.id, '-', m.n)), 8), '-', SUBSTR(MD5(CONCAT('mark', c.id, '-', m.n)), 9, 4), '-', SUBSTR(MD5(CONCAT('mark', c.id, '-', m.n)), 13, 4), '-',
       SUBSTR(MD5(CONCAT('mark', c.id, '-', m.n)), 17, 4), '-', SUBSTR(MD5(CONCAT('mark', c.id, '-', m.n)), 21, 12)),
       c.id, 'done', COALESCE(m.piece, ''), COALESCE(m.stage, ''), COALESCE(m.happened, ''), '{}', c.updated_at
FROM cooks c, JSON_TABLE(IF(JSON_VALID(c.plan), c.plan, '{}'), '$.marks[*]' COLUMNS (
    n FOR ORDINALITY, piece VARCHAR(60) PATH '$.piece', stage VARCHAR(16) PATH '$.stage', happened VARCHAR(40) PATH '$.at', done INT PATH '$.done'
)) m
WHERE m.done = 1
ORDER BY c.id, m.n;

INSERT IGNORE INTO facts (id, cook_id, kind, piece, what, happened, body, created_at)
SELECT CONCAT(LEFT(MD5(CONCAT('ack', c.id, '-', a.n)), 8), '-', SUBSTR(MD5(CONCAT('ack', c.id, '-', a.n)), 9, 4), '-', SUBSTR(MD5(CONCAT('ack', c.id, '-', a.n)), 13, 4), '-',
       SUBSTR(MD5(CONCAT('ack', c.id, '-', a.n)), 17, 4), '-', SUBSTR(MD5(CONCAT('ack', c.id, '-', a.n)), 21, 12)),
       c.id, 'acknowledged', COALESCE(a.piece, ''), COALESCE(a.rule, ''), COALESCE(a.happened, ''), JSON_OBJECT('said', COALESCE(a.said, '')), c.updated_at
FROM cooks c, JSON_TABLE(IF(JSON_VALID(c.plan), c.plan, '{}'), '$.acks[*]' COLUMNS (
    n FOR ORDINALITY, piece VARCHAR(60) PATH '$.piece', rule VARCHAR(60) PATH '$.rule', said VARCHAR(1000) PATH '$.what', happened VARCHAR(40) PATH '$.at'
)) a
ORDER BY c.id, a.n;

-- +goose Down
DROP TABLE IF EXISTS facts;
