-- +goose Up
-- Cooks that were told afterwards by a version that kept no words: what it made of them may be wrong. They have one
-- piece, now, and nobody presses that it went on and that all is over within two seconds, hours apart by what they say.
CREATE OR REPLACE TEMPORARY TABLE told_cooks AS
SELECT DISTINCT o.cook, o.created_at
FROM facts o JOIN facts f ON f.cook = o.cook AND f.kind = 'done' AND f.what = 'fire' AND f.piece = 'now' AND f.happened <> o.happened
    AND f.created_at BETWEEN DATE_SUB(o.created_at, INTERVAL 2 SECOND) AND o.created_at
WHERE o.kind = 'done' AND o.what = 'over'
    AND NOT EXISTS (SELECT 1 FROM facts w WHERE w.cook = o.cook AND JSON_VALUE(w.body, '$.device') = 'told');

UPDATE facts f JOIN told_cooks t ON t.cook = f.cook AND f.created_at BETWEEN DATE_SUB(t.created_at, INTERVAL 2 SECOND) AND t.created_at
SET f.body = JSON_SET(f.body, '$.device', 'told')
WHERE f.kind = 'done';

-- What it took for readings is told with them from now on, so that it can be told in other words.
INSERT IGNORE INTO facts (id, cook, kind, piece, what, happened, body, created_at)
SELECT CONCAT(LEFT(m.h, 8), '-', SUBSTR(m.h, 9, 4), '-', SUBSTR(m.h, 13, 4), '-', SUBSTR(m.h, 17, 4), '-', SUBSTR(m.h, 21, 12)),
       m.cook, 'done', 'now', 'probe', m.at,
       JSON_OBJECT('values', JSON_OBJECT('core_c', m.c), 'device', 'told'), m.created_at
FROM (
    SELECT MD5(CONCAT('told-', r.cook, r.at_ms)) h, r.cook, r.celsius c, t.created_at,
           DATE_FORMAT(DATE_ADD('1970-01-01', INTERVAL r.at_ms DIV 1000 SECOND), '%Y-%m-%dT%H:%i:%sZ') at
    FROM readings r JOIN hand_ins h ON h.id = r.hand_in AND h.device = 'told' JOIN told_cooks t ON t.cook = r.cook
    UNION ALL
    SELECT MD5(CONCAT('told-', r.cook, r.first_ms)), r.cook, r.first_c, t.created_at,
           DATE_FORMAT(DATE_ADD('1970-01-01', INTERVAL r.first_ms DIV 1000 SECOND), '%Y-%m-%dT%H:%i:%sZ')
    FROM minutes r JOIN told_cooks t ON t.cook = r.cook
    WHERE NOT EXISTS (SELECT 1 FROM hand_ins h WHERE h.cook = r.cook AND h.device <> 'told')
) m
WHERE m.c BETWEEN 0 AND 130;
DELETE r FROM readings r JOIN hand_ins h ON h.id = r.hand_in AND h.device = 'told' JOIN told_cooks t ON t.cook = r.cook;
DELETE r FROM minutes r JOIN told_cooks t ON t.cook = r.cook
WHERE NOT EXISTS (SELECT 1 FROM hand_ins h WHERE h.cook = r.cook AND h.device <> 'told');

-- They teach nothing until they are told again.
UPDATE outcomes o JOIN told_cooks t ON t.cook = o.cook SET o.body = JSON_SET(o.body, '$.misread', TRUE);
UPDATE generations SET n = n + 1 WHERE EXISTS (SELECT 1 FROM told_cooks);
DROP TEMPORARY TABLE told_cooks;

-- +goose Down
-- What was told stays told.
SELECT 1;
