-- +goose Up
-- Which book this is: it goes up when a book is put in the place of what is on record, or taken in
-- beside it, so that a running program forgets what it has read.
CREATE TABLE IF NOT EXISTS generations (
    one TINYINT         NOT NULL PRIMARY KEY,
    n   BIGINT UNSIGNED NOT NULL
) ENGINE = InnoDB;
INSERT IGNORE INTO generations VALUES (1, 1);

-- Versions of a formula that came from another database with numbers beyond its own: what is on
-- record becomes the last one again.
INSERT IGNORE INTO record_versions (record, version, body, changes, saved_at)
SELECT r.id, m.v + 1, r.body, '[{"id":"changed.kept"}]', r.updated_at
FROM records r JOIN (SELECT record, MAX(version) v FROM record_versions GROUP BY record) m ON m.record = r.id
WHERE m.v > r.version AND r.kind = 'formula';
UPDATE records r JOIN (SELECT record, MAX(version) v FROM record_versions GROUP BY record) m ON m.record = r.id
SET r.version = m.v WHERE m.v > r.version AND r.kind = 'formula';

-- A cook that is practised is told apart by its record.
UPDATE records r JOIN clocks c ON c.cook = r.id AND NOT (c.speed = 0 OR c.speed = 1 AND c.began_ms = c.cook_ms)
SET r.class = 'practice' WHERE r.kind = 'cook';

-- +goose Down
DROP TABLE IF EXISTS generations;
