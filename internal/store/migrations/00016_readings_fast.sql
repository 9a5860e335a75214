-- +goose Up
-- A file of a thermometer brings hundreds of thousands of readings: they are found by their cook alone,
-- compared byte by byte, which makes adding them four times as fast.
ALTER TABLE readings DROP INDEX IF EXISTS of_hand_in, CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;

-- +goose Down
ALTER TABLE readings ADD INDEX IF NOT EXISTS of_hand_in (hand_in), CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
