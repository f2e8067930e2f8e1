CREATE TABLE IF NOT EXISTS `audit` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(80),
	`action` varchar(40) NOT NULL,
	`about` json NOT NULL,
	CONSTRAINT `audit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `audit_by_time` ON `audit` (`at`);
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `audit_no_update` BEFORE UPDATE ON `audit` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was done is append-only';
--> statement-breakpoint
CREATE OR REPLACE TRIGGER `audit_no_delete` BEFORE DELETE ON `audit` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was done is append-only';
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `invitation` (
	`id` char(36) NOT NULL,
	`code_hash` char(64) NOT NULL,
	`person_id` char(36),
	`name` varchar(80) NOT NULL,
	`email` varchar(255) NOT NULL,
	`role` enum('viewer','tester','supervisor') NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `invitation_id` PRIMARY KEY(`id`),
	CONSTRAINT `invitation_code_hash_unique` UNIQUE(`code_hash`),
	CONSTRAINT `invitation_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`)
);
--> statement-breakpoint
ALTER TABLE `job_person` ADD COLUMN IF NOT EXISTS `since` datetime(3);
