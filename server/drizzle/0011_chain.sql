CREATE TABLE `study_log` (
	`study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`entry` int NOT NULL,
	`kind` varchar(10) NOT NULL,
	`evidence_id` varchar(36) COLLATE utf8mb4_bin,
	`detail` longtext NOT NULL,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	`hash` varchar(64) NOT NULL,
	CONSTRAINT `study_log_study_id_entry_pk` PRIMARY KEY(`study_id`,`entry`)
);
--> statement-breakpoint
ALTER TABLE `changes` ADD `cells` longtext;--> statement-breakpoint
ALTER TABLE `changes` ADD `entry` int;--> statement-breakpoint
ALTER TABLE `changes` ADD `hash` varchar(64);--> statement-breakpoint
ALTER TABLE `studies` ADD `entries` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `studies` ADD `head` varchar(64);--> statement-breakpoint
ALTER TABLE `studies` ADD `origins` longtext;--> statement-breakpoint
ALTER TABLE `studies` ADD `not_verified` varchar(600);