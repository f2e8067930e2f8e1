CREATE TABLE IF NOT EXISTS `seal_key` (
	`number` int NOT NULL,
	`public_key` varchar(200) NOT NULL,
	`since` datetime(3) NOT NULL,
	`previous` char(64),
	`signature` varchar(120) NOT NULL,
	`vouched` varchar(120),
	CONSTRAINT `seal_key_number` PRIMARY KEY(`number`)
);
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `seal_key_no_update` BEFORE UPDATE ON `seal_key` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'keys are append-only';
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `seal_key_no_delete` BEFORE DELETE ON `seal_key` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'keys are append-only';
--> statement-breakpoint
ALTER TABLE `job` ADD COLUMN IF NOT EXISTS `seals` int DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE `seal` ADD COLUMN IF NOT EXISTS `number` int NOT NULL DEFAULT 0;
--> statement-breakpoint
DROP TRIGGER IF EXISTS `seal_no_update`;
--> statement-breakpoint
UPDATE `seal` JOIN (
  SELECT `id`, ROW_NUMBER() OVER (PARTITION BY `job_id` ORDER BY CHAR_LENGTH(`issue`), `issue`) AS `place` FROM `seal`
) AS `placed` ON `placed`.`id` = `seal`.`id` SET `seal`.`number` = `placed`.`place`;
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `seal_no_update` BEFORE UPDATE ON `seal` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'seals are append-only';
--> statement-breakpoint
ALTER TABLE `seal` ALTER COLUMN `number` DROP DEFAULT;
--> statement-breakpoint
CREATE UNIQUE INDEX IF NOT EXISTS `seal_number` ON `seal` (`job_id`, `number`);
--> statement-breakpoint
UPDATE `job` SET `seals` = (SELECT COUNT(*) FROM `seal` WHERE `seal`.`job_id` = `job`.`id`);
