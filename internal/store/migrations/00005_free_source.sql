-- +goose Up
-- Which source of salt gives way to the target; empty means the rub.
ALTER TABLE pieces ADD COLUMN IF NOT EXISTS free_source VARCHAR(20) NOT NULL DEFAULT '' AFTER target;

-- +goose Down
ALTER TABLE pieces DROP COLUMN IF EXISTS free_source;
