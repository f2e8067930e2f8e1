CREATE TRIGGER `entry_no_update` BEFORE UPDATE ON `entry` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'entries are append-only';
--> statement-breakpoint
CREATE TRIGGER `entry_no_delete` BEFORE DELETE ON `entry` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'entries are append-only';
--> statement-breakpoint
CREATE TRIGGER `seal_no_update` BEFORE UPDATE ON `seal` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'seals are append-only';
--> statement-breakpoint
CREATE TRIGGER `seal_no_delete` BEFORE DELETE ON `seal` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'seals are append-only';
--> statement-breakpoint
CREATE TRIGGER `regime_no_update` BEFORE UPDATE ON `regime` FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'versions of a regime are immutable';
