-- +goose Up
-- How often a record was read to check another one that was being saved: it is written
-- then, so that two saves whose checks rest on each other cannot both pass.
ALTER TABLE records ADD COLUMN IF NOT EXISTS checks INT UNSIGNED NOT NULL DEFAULT 0;
