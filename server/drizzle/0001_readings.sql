ALTER TABLE `changes` ADD `place_column` varchar(36);--> statement-breakpoint
ALTER TABLE `changes` ADD `place_row` int;--> statement-breakpoint
ALTER TABLE `columns` ADD `target` double;--> statement-breakpoint
ALTER TABLE `columns` ADD `claimed_mean` double;--> statement-breakpoint
ALTER TABLE `columns` ADD `claimed_sd` double;--> statement-breakpoint
ALTER TABLE `columns` ADD `levels` longtext;--> statement-breakpoint
ALTER TABLE `columns` ADD `frequencies` varchar(36);--> statement-breakpoint
ALTER TABLE `columns` ADD `derivation` longtext;