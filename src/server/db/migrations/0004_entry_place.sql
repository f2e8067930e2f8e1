ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `seq` int NOT NULL DEFAULT 0;
--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `clock_moved_ms` bigint;
--> statement-breakpoint
DROP TRIGGER IF EXISTS `entry_no_update`;
--> statement-breakpoint
UPDATE `entry` JOIN (
  SELECT `id`, ROW_NUMBER() OVER (PARTITION BY `job_id` ORDER BY `received_at`, `id`) AS `place` FROM `entry`
) AS `placed` ON `placed`.`id` = `entry`.`id` SET `entry`.`seq` = `placed`.`place`;
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `entry_no_update` BEFORE UPDATE ON `entry` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'entries are append-only';
--> statement-breakpoint
ALTER TABLE `entry` ALTER COLUMN `seq` DROP DEFAULT;
--> statement-breakpoint
CREATE UNIQUE INDEX IF NOT EXISTS `entry_place` ON `entry` (`job_id`, `seq`);
--> statement-breakpoint
DROP INDEX IF EXISTS `entry_by_job` ON `entry`;
