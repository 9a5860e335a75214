-- +goose Up
-- Everything in these tables is a record now.
ALTER TABLE facts DROP FOREIGN KEY IF EXISTS facts_ibfk_1;
ALTER TABLE facts DROP INDEX IF EXISTS of_cook, DROP COLUMN IF EXISTS cook_id;
ALTER TABLE facts ADD INDEX IF NOT EXISTS by_cook (cook, seq);
ALTER TABLE facts ADD FOREIGN KEY IF NOT EXISTS fact_of_cook (cook) REFERENCES records (id) ON DELETE CASCADE;
ALTER TABLE photos DROP FOREIGN KEY IF EXISTS photos_ibfk_1;
ALTER TABLE photos DROP INDEX IF EXISTS of_cook, DROP COLUMN IF EXISTS cook_id;
ALTER TABLE photos ADD INDEX IF NOT EXISTS by_cook (cook, deleted_at, id);
ALTER TABLE photos ADD FOREIGN KEY IF NOT EXISTS photo_of_cook (cook) REFERENCES records (id) ON DELETE CASCADE;
DROP TABLE IF EXISTS rub_rows;
DROP TABLE IF EXISTS pieces;
DROP TABLE IF EXISTS formula_versions;
DROP TABLE IF EXISTS formulas;
DROP TABLE IF EXISTS jars;
DROP TABLE IF EXISTS own_ingredients;
DROP TABLE IF EXISTS larder_things;
DROP TABLE IF EXISTS cooks;
