CREATE TABLE IF NOT EXISTS `printed` (
	`key` char(64) NOT NULL,
	`job_id` char(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`bytes` longblob NOT NULL,
	CONSTRAINT `printed_key` PRIMARY KEY(`key`),
	CONSTRAINT `printed_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`)
);
--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `printed_by_time` ON `printed` (`made_at`);
