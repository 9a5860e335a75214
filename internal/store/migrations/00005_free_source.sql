-- +goose Up
-- Which source of salt gives way to the target; empty means the rub.
ALTER TABLE pieces ADD COLUMN free_source VARCHAR(20) NOT NULL DEFAULT '' AFTER target;

-- +goose Down
ALTER TABLE pieces DROP COLUMN free_source;
