CREATE TABLE `looks` (
	`study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`digest` varchar(64) NOT NULL,
	`analysis` varchar(60) NOT NULL,
	`column_id` varchar(36) COLLATE utf8mb4_bin,
	`tests` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `looks_study_id_digest_pk` PRIMARY KEY(`study_id`,`digest`)
);
--> statement-breakpoint
ALTER TABLE `evidence` ADD `place` int;--> statement-breakpoint
ALTER TABLE `evidence` ADD `left_out` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` ADD `leads` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` ADD `answers` longtext DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` ADD `replaces` varchar(36) COLLATE utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `studies` ADD `asks` varchar(20);--> statement-breakpoint
ALTER TABLE `studies` ADD `tags` longtext DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `studies` ADD `subject_bins` longtext;--> statement-breakpoint
ALTER TABLE `studies` ADD `changed_by` varchar(80);--> statement-breakpoint
ALTER TABLE `verdicts` ADD `family` varchar(80);--> statement-breakpoint
ALTER TABLE `verdicts` ADD `left_open` varchar(1000) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `verdicts` ADD `looked` longtext;--> statement-breakpoint
UPDATE `studies` SET `subject_count` = NULL, `changed_by` = (SELECT `who` FROM `changes` WHERE `changes`.`study_id` = `studies`.`id` AND `changes`.`revision` = `studies`.`revision`);
