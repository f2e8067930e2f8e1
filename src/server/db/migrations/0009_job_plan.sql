ALTER TABLE `job` ADD COLUMN IF NOT EXISTS `due_on` char(10);
--> statement-breakpoint
ALTER TABLE `job` ADD COLUMN IF NOT EXISTS `put_away_at` datetime(3);
