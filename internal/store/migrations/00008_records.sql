-- +goose Up
-- Everything that a cook writes and changes is a record: one JSON document as typed,
-- its id, its version against lost updates, whose it is, and the few values by which
-- it is found and put in order. What was saved in tables of columns is copied here; an
-- old number stays readable as the end of the new id.
CREATE TABLE IF NOT EXISTS records (
    id         CHAR(36)     NOT NULL PRIMARY KEY,
    kind       VARCHAR(16)  NOT NULL,
    owner      VARCHAR(64)  NOT NULL DEFAULT '',
    version    INT UNSIGNED NOT NULL DEFAULT 1,
    name       VARCHAR(200) NOT NULL DEFAULT '',
    code       VARCHAR(64)  NULL COMMENT 'a name that only one record of a kind may have',
    served_at  VARCHAR(16)  NOT NULL DEFAULT '',
    class      VARCHAR(16)  NOT NULL DEFAULT '',
    tags       VARCHAR(400) NOT NULL DEFAULT '',
    note       TEXT         NOT NULL DEFAULT '',
    body       LONGTEXT     NOT NULL,
    created_at DATETIME(3)  NOT NULL,
    updated_at DATETIME(3)  NOT NULL,
    deleted_at DATETIME(3)  NULL,
    UNIQUE INDEX by_code (kind, owner, code),
    INDEX by_serving (kind, deleted_at, served_at, created_at),
    INDEX by_name (kind, deleted_at, name, created_at)
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- Each version of a formula, with what was changed.
CREATE TABLE IF NOT EXISTS record_versions (
    record   CHAR(36)     NOT NULL,
    version  INT UNSIGNED NOT NULL,
    body     LONGTEXT     NOT NULL,
    changes  TEXT         NOT NULL,
    saved_at DATETIME(3)  NOT NULL,
    PRIMARY KEY (record, version),
    FOREIGN KEY (record) REFERENCES records (id) ON DELETE CASCADE
) ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci;

-- The old rows are put together as the page's own JSON. JSON_COMPACT tells MariaDB that
-- a text is JSON already.
INSERT IGNORE INTO records (id, kind, version, name, served_at, body, created_at, updated_at, deleted_at)
SELECT CONCAT('00000000-0000-4001-8000-', LPAD(c.id, 12, '0')), 'cook', c.version, c.name, c.serve_at,
    JSON_MERGE_PATCH(
        JSON_OBJECT('name', c.name, 'serve_at', c.serve_at, 'zone', c.zone, 'guests', c.guests, 'portion', c.serving, 'fridge', c.fridge, 'room', c.room),
        JSON_REMOVE(IF(JSON_VALID(c.plan), c.plan, '{}'), '$.marks', '$.acks'),
        IF(m.wishes IS NULL, '{}', JSON_OBJECT('wishes', JSON_MERGE_PRESERVE(COALESCE(JSON_QUERY(IF(JSON_VALID(c.plan), c.plan, '{}'), '$.wishes'), '[]'), m.wishes))),
        JSON_OBJECT('pieces', JSON_COMPACT(COALESCE(p.pieces, '[]')))
    ), c.created_at, c.updated_at, c.deleted_at
FROM cooks c
LEFT JOIN (
    SELECT o.id, JSON_ARRAYAGG(JSON_OBJECT('piece', COALESCE(w.piece, ''), 'stage', COALESCE(w.stage, ''), 'at', COALESCE(w.happened, '')) ORDER BY w.n) wishes
    FROM cooks o, JSON_TABLE(IF(JSON_VALID(o.plan), o.plan, '{}'), '$.marks[*]' COLUMNS (
        n FOR ORDINALITY, piece VARCHAR(60) PATH '$.piece', stage VARCHAR(16) PATH '$.stage', happened VARCHAR(40) PATH '$.at', done INT PATH '$.done'
    )) w
    WHERE COALESCE(w.done, 0) = 0 AND w.stage IS NOT NULL
    GROUP BY o.id
) m ON m.id = c.id
LEFT JOIN (
    SELECT q.cook_id, JSON_ARRAYAGG(JSON_MERGE_PATCH(
        JSON_OBJECT(
            'label', q.label, 'cut', q.cut, 'count', q.pieces, 'bought', q.bought, 'trimmed', q.trimmed, 'together', JSON_COMPACT(IF(q.together, 'true', 'false')),
            'trim_style', q.trim_style, 'thickness', q.thickness, 'faces', q.faces,
            'season', JSON_OBJECT(
                'formula', JSON_OBJECT(
                    'id', q.formula, 'name', q.formula_name, 'kind', q.formula_kind, 'note', q.formula_note, 'basis', q.formula_basis,
                    'tags', JSON_COMPACT(IF(q.formula_tags = '', 'null', CONCAT('["', REPLACE(REPLACE(REPLACE(q.formula_tags, '\\', '\\\\'), '"', '\\"'), ',', '","'), '"]'))),
                    'spoons', COALESCE(JSON_VALUE(q.doc, '$.spoons'), ''), 'rows', JSON_COMPACT(COALESCE(r.parts, '[]'))
                ),
                'mode', q.mode, 'target', q.target, 'coat', q.coat, 'binder', JSON_COMPACT(IF(q.binder, 'true', 'false')),
                'free', q.free_source, 'band', q.band, 'spare', q.spare
            ),
            'wait', JSON_OBJECT('style', q.wait_style, 'for', q.wait_for, 'open', JSON_COMPACT(IF(q.wait_open, 'true', 'false'))),
            'fire', JSON_OBJECT('pit', q.pit, 'time', q.fire_time, 'rest', q.rest, 'temper', q.temper,
                'on', CAST(COALESCE(JSON_VALUE(q.doc, '$.on'), '0') AS INT), 'done', COALESCE(JSON_VALUE(q.doc, '$.done'), ''))
        ),
        JSON_REMOVE(q.doc, '$.on', '$.done', '$.spoons')
    ) ORDER BY q.position) pieces
    FROM (SELECT *, IF(JSON_VALID(wet), wet, '{}') AS doc FROM pieces) q
    LEFT JOIN (
        SELECT piece_id, JSON_ARRAYAGG(JSON_OBJECT('ingredient', ingredient, 'form', form, 'formula', formula, 'parts', parts) ORDER BY position) parts
        FROM rub_rows GROUP BY piece_id
    ) r ON r.piece_id = q.id
    GROUP BY q.cook_id
) p ON p.cook_id = c.id;

INSERT IGNORE INTO records (id, kind, version, name, class, tags, note, body, created_at, updated_at, deleted_at)
SELECT CONCAT('00000000-0000-4002-8000-', LPAD(id, 12, '0')), 'formula', version, name, kind, tags, note, body, created_at, updated_at, deleted_at FROM formulas;

INSERT IGNORE INTO record_versions (record, version, body, changes, saved_at)
SELECT CONCAT('00000000-0000-4002-8000-', LPAD(formula_id, 12, '0')), version, body, changes, saved_at FROM formula_versions;

INSERT IGNORE INTO records (id, kind, version, name, body, created_at, updated_at, deleted_at)
SELECT CONCAT('00000000-0000-4003-8000-', LPAD(id, 12, '0')), 'jar', version, name, body, created_at, updated_at, deleted_at FROM jars;

INSERT IGNORE INTO records (id, kind, version, name, body, created_at, updated_at, deleted_at)
SELECT CONCAT('00000000-0000-4004-8000-', LPAD(id, 12, '0')), 'ingredient', version, name, body, created_at, updated_at, deleted_at FROM own_ingredients;

INSERT IGNORE INTO records (id, kind, name, code, body, created_at, updated_at)
SELECT CONCAT('00000000-0000-4005-8000-', LEFT(MD5(thing), 12)), 'thing', code, code, JSON_OBJECT('thing', code, 'price', price, 'stock', stock), updated_at, updated_at
FROM (SELECT thing, price, stock, updated_at, IF(thing REGEXP '^own-[0-9]+$', CONCAT('own-00000000-0000-4004-8000-', LPAD(SUBSTR(thing, 5), 12, '0')), thing) AS code FROM larder_things) t;

-- A pit is a record of its own: one for each name that a cook has given to one.
INSERT IGNORE INTO records (id, kind, name, code, body, created_at, updated_at)
SELECT CONCAT('00000000-0000-4006-8000-', LEFT(MD5(LOWER(t.name)), 12)), 'pit', t.name, LEFT(LOWER(t.name), 64),
    JSON_OBJECT('name', t.name, 'kind', COALESCE(t.kind, ''), 'room', COALESCE(t.room, '')), c.created_at, c.updated_at
FROM cooks c, JSON_TABLE(IF(JSON_VALID(c.plan), c.plan, '{}'), '$.pits[*]' COLUMNS (
    name VARCHAR(200) PATH '$.name', kind VARCHAR(16) PATH '$.kind', room VARCHAR(80) PATH '$.room'
)) t
WHERE t.name <> ''
ORDER BY c.updated_at DESC;

-- Documents name formulas and own ingredients by the new ids: zeros are put before the
-- number, and those beyond twelve digits are taken away again.
UPDATE records SET body = REGEXP_REPLACE(REGEXP_REPLACE(body,
    '"(id|formula)": *"([0-9]{1,12})"', '"\\1":"00000000-0000-4002-8000-000000000000\\2"'),
    '(00000000-0000-4002-8000-)[0-9]*([0-9]{12})"', '\\1\\2"')
WHERE kind IN ('cook', 'formula', 'jar') AND body REGEXP '"(id|formula)": *"[0-9]{1,12}"';

UPDATE record_versions SET body = REGEXP_REPLACE(REGEXP_REPLACE(body,
    '"(id|formula)": *"([0-9]{1,12})"', '"\\1":"00000000-0000-4002-8000-000000000000\\2"'),
    '(00000000-0000-4002-8000-)[0-9]*([0-9]{12})"', '\\1\\2"')
WHERE body REGEXP '"(id|formula)": *"[0-9]{1,12}"';

UPDATE records SET body = REGEXP_REPLACE(REGEXP_REPLACE(body,
    '"ingredient": *"own-([0-9]{1,12})"', '"ingredient":"own-00000000-0000-4004-8000-000000000000\\1"'),
    '(own-00000000-0000-4004-8000-)[0-9]*([0-9]{12})"', '\\1\\2"')
WHERE kind IN ('cook', 'formula', 'jar') AND body REGEXP '"ingredient": *"own-[0-9]{1,12}"';

UPDATE record_versions SET body = REGEXP_REPLACE(REGEXP_REPLACE(body,
    '"ingredient": *"own-([0-9]{1,12})"', '"ingredient":"own-00000000-0000-4004-8000-000000000000\\1"'),
    '(own-00000000-0000-4004-8000-)[0-9]*([0-9]{12})"', '\\1\\2"')
WHERE body REGEXP '"ingredient": *"own-[0-9]{1,12}"';

ALTER TABLE facts ADD COLUMN IF NOT EXISTS cook CHAR(36) NOT NULL DEFAULT '' AFTER id;
UPDATE facts SET cook = CONCAT('00000000-0000-4001-8000-', LPAD(cook_id, 12, '0')) WHERE cook = '';

ALTER TABLE photos ADD COLUMN IF NOT EXISTS cook CHAR(36) NOT NULL DEFAULT '' AFTER id;
UPDATE photos SET cook = CONCAT('00000000-0000-4001-8000-', LPAD(cook_id, 12, '0')) WHERE cook = '';
