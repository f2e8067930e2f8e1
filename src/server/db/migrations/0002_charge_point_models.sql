CREATE TABLE `charge_point_model` (
	`id` char(36) NOT NULL,
	`data` json NOT NULL,
	CONSTRAINT `charge_point_model_id` PRIMARY KEY(`id`)
);
