ALTER TABLE `feed_sample` ADD `pair` varchar(12) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `feed_sample` ADD CONSTRAINT `feed_once_of_pair` UNIQUE(`instrument_id`,`quantity`,`pair`,`at`,`value`);--> statement-breakpoint
ALTER TABLE `feed_sample` DROP INDEX `feed_once_of_value`;
