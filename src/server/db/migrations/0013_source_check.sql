CREATE TABLE `source_check` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`source` varchar(60) NOT NULL,
	`edition` varchar(60) NOT NULL,
	`by` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	`agrees` boolean NOT NULL,
	`note` varchar(300) NOT NULL,
	CONSTRAINT `source_check_id` PRIMARY KEY(`id`)
);
