CREATE TABLE `account` (
	`id` varchar(36) NOT NULL,
	`account_id` varchar(255) NOT NULL,
	`provider_id` varchar(60) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` datetime(3),
	`refresh_token_expires_at` datetime(3),
	`scope` text,
	`password` text,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `account_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `attachment` (
	`id` char(36) NOT NULL,
	`job_id` char(36) NOT NULL,
	`sha256` char(64) NOT NULL,
	`media_type` varchar(60) NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `attachment_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `company` (
	`id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`address` varchar(300) NOT NULL,
	`time_zone` varchar(60) NOT NULL,
	`language` varchar(8) NOT NULL,
	`demo` boolean NOT NULL,
	CONSTRAINT `company_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `entry` (
	`id` char(36) NOT NULL,
	`job_id` char(36) NOT NULL,
	`visit_id` char(36) NOT NULL,
	`part_id` char(36),
	`step` varchar(60),
	`kind` varchar(24) NOT NULL,
	`person_id` char(36) NOT NULL,
	`device_time` datetime(3) NOT NULL,
	`clock_offset_ms` bigint NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`body` json NOT NULL,
	`body_hash` char(64) NOT NULL,
	CONSTRAINT `entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `feed_sample` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`instrument_id` char(36) NOT NULL,
	`quantity` varchar(40) NOT NULL,
	`value` double NOT NULL,
	`bound` varchar(10) NOT NULL,
	`text` varchar(24) NOT NULL,
	`unit` varchar(8) NOT NULL,
	`at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `feed_sample_id` PRIMARY KEY(`id`),
	CONSTRAINT `feed_once` UNIQUE(`instrument_id`,`quantity`,`at`)
);
--> statement-breakpoint
CREATE TABLE `instrument` (
	`id` char(36) NOT NULL,
	`data` json NOT NULL,
	`stand_in` boolean NOT NULL,
	`paired_job_id` char(36),
	`retired` boolean NOT NULL DEFAULT false,
	CONSTRAINT `instrument_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `instrument_token` (
	`token_hash` char(64) NOT NULL,
	`instrument_id` char(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`revoked_at` datetime(3),
	CONSTRAINT `instrument_token_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `job` (
	`id` char(36) NOT NULL,
	`number` varchar(20) NOT NULL,
	`name` varchar(80) NOT NULL,
	`place` varchar(160) NOT NULL,
	`time_zone` varchar(60) NOT NULL,
	`regime_id` varchar(60) NOT NULL,
	`regime_version` int NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`summary` json,
	`summary_seen` int,
	CONSTRAINT `job_id` PRIMARY KEY(`id`),
	CONSTRAINT `job_number_unique` UNIQUE(`number`)
);
--> statement-breakpoint
CREATE TABLE `job_person` (
	`job_id` char(36) NOT NULL,
	`person_id` char(36) NOT NULL,
	CONSTRAINT `job_person_job_id_person_id_pk` PRIMARY KEY(`job_id`,`person_id`)
);
--> statement-breakpoint
CREATE TABLE `module_type` (
	`id` char(36) NOT NULL,
	`data` json NOT NULL,
	CONSTRAINT `module_type_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `part` (
	`id` char(36) NOT NULL,
	`job_id` char(36) NOT NULL,
	`data` json NOT NULL,
	`revision` char(36) NOT NULL,
	`retired` boolean NOT NULL,
	CONSTRAINT `part_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `person` (
	`id` char(36) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`role` enum('viewer','tester','supervisor') NOT NULL,
	`active` boolean NOT NULL DEFAULT true,
	CONSTRAINT `person_id` PRIMARY KEY(`id`),
	CONSTRAINT `person_user_id_unique` UNIQUE(`user_id`)
);
--> statement-breakpoint
CREATE TABLE `rate_limit` (
	`id` varchar(36) NOT NULL,
	`key` varchar(255) NOT NULL,
	`count` int NOT NULL,
	`last_request` bigint NOT NULL,
	CONSTRAINT `rate_limit_id` PRIMARY KEY(`id`),
	CONSTRAINT `rate_limit_key_unique` UNIQUE(`key`)
);
--> statement-breakpoint
CREATE TABLE `regime` (
	`id` varchar(60) NOT NULL,
	`version` int NOT NULL,
	`data` json NOT NULL,
	CONSTRAINT `regime_id_version_pk` PRIMARY KEY(`id`,`version`)
);
--> statement-breakpoint
CREATE TABLE `seal` (
	`id` char(36) NOT NULL,
	`job_id` char(36) NOT NULL,
	`issue` varchar(4) NOT NULL,
	`sealed_at` datetime(3) NOT NULL,
	`hash` char(64) NOT NULL,
	`record` longtext NOT NULL,
	CONSTRAINT `seal_id` PRIMARY KEY(`id`),
	CONSTRAINT `seal_issue` UNIQUE(`job_id`,`issue`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`id` varchar(36) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`token` varchar(255) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	`ip_address` varchar(64),
	`user_agent` text,
	`user_id` varchar(36) NOT NULL,
	CONSTRAINT `session_id` PRIMARY KEY(`id`),
	CONSTRAINT `session_token_unique` UNIQUE(`token`)
);
--> statement-breakpoint
CREATE TABLE `user` (
	`id` varchar(36) NOT NULL,
	`name` varchar(255) NOT NULL,
	`email` varchar(255) NOT NULL,
	`email_verified` boolean NOT NULL DEFAULT false,
	`image` text,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `user_id` PRIMARY KEY(`id`),
	CONSTRAINT `user_email_unique` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `verification` (
	`id` varchar(36) NOT NULL,
	`identifier` varchar(255) NOT NULL,
	`value` text NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `verification_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `visit` (
	`id` char(36) NOT NULL,
	`job_id` char(36) NOT NULL,
	`starts_at` datetime(3) NOT NULL,
	`title` varchar(80) NOT NULL,
	CONSTRAINT `visit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entry` ADD CONSTRAINT `entry_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entry` ADD CONSTRAINT `entry_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entry` ADD CONSTRAINT `entry_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `feed_sample` ADD CONSTRAINT `feed_sample_instrument_id_instrument_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instrument`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `instrument` ADD CONSTRAINT `instrument_paired_job_id_job_id_fk` FOREIGN KEY (`paired_job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `instrument_token` ADD CONSTRAINT `instrument_token_instrument_id_instrument_id_fk` FOREIGN KEY (`instrument_id`) REFERENCES `instrument`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `job_person` ADD CONSTRAINT `job_person_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `job_person` ADD CONSTRAINT `job_person_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `part` ADD CONSTRAINT `part_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seal` ADD CONSTRAINT `seal_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `visit` ADD CONSTRAINT `visit_job_id_job_id_fk` FOREIGN KEY (`job_id`) REFERENCES `job`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `attachment_by_job` ON `attachment` (`job_id`);--> statement-breakpoint
CREATE INDEX `entry_by_job` ON `entry` (`job_id`,`received_at`);--> statement-breakpoint
CREATE INDEX `feed_by_time` ON `feed_sample` (`received_at`);--> statement-breakpoint
CREATE INDEX `part_by_job` ON `part` (`job_id`);--> statement-breakpoint
CREATE INDEX `visit_by_job` ON `visit` (`job_id`);