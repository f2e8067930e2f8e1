CREATE UNIQUE INDEX IF NOT EXISTS `feed_once_of_value` ON `feed_sample` (`instrument_id`, `quantity`, `at`, `value`);
--> statement-breakpoint
DROP INDEX IF EXISTS `feed_once` ON `feed_sample`;
