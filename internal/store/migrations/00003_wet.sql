-- +goose Up
-- What a piece gets besides its rub (bath, injection, more layers), as typed: one
-- JSON document, empty when there is nothing.
ALTER TABLE pieces ADD COLUMN IF NOT EXISTS wet LONGTEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE pieces DROP COLUMN IF EXISTS wet;
