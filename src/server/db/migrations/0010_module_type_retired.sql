ALTER TABLE `module_type` ADD COLUMN IF NOT EXISTS `retired` boolean DEFAULT false NOT NULL;
