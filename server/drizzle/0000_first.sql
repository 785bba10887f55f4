CREATE TABLE `cell_blocks` (
	`column_id` varchar(36) NOT NULL,
	`block` int NOT NULL,
	`cells` longtext NOT NULL,
	CONSTRAINT `cell_blocks_column_id_block_pk` PRIMARY KEY(`column_id`,`block`)
);
--> statement-breakpoint
CREATE TABLE `changes` (
	`study_id` varchar(36) NOT NULL,
	`revision` int NOT NULL,
	`token` varchar(36) NOT NULL,
	`kind` varchar(20) NOT NULL,
	`detail` longtext NOT NULL,
	`inverse` longtext,
	`text` varchar(600) NOT NULL,
	`reason` varchar(1000),
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	`undoes` int,
	CONSTRAINT `changes_study_id_revision_pk` PRIMARY KEY(`study_id`,`revision`),
	CONSTRAINT `change_once` UNIQUE(`study_id`,`token`)
);
--> statement-breakpoint
CREATE TABLE `columns` (
	`id` varchar(36) NOT NULL,
	`study_id` varchar(36) NOT NULL,
	`position` int NOT NULL,
	`name` varchar(80) NOT NULL,
	`unit` varchar(20) NOT NULL,
	`kind` varchar(10) NOT NULL,
	`decimal_mark` varchar(10) NOT NULL,
	`thousands_mark` varchar(12) NOT NULL,
	`resolution` double,
	`lower_limit` double,
	`upper_limit` double,
	`removed` boolean NOT NULL DEFAULT false,
	CONSTRAINT `columns_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `evidence` (
	`id` varchar(36) NOT NULL,
	`study_id` varchar(36) NOT NULL,
	`column_id` varchar(36) NOT NULL,
	`analysis` varchar(60) NOT NULL,
	`version` int NOT NULL,
	`app_version` varchar(20) NOT NULL,
	`request` longtext NOT NULL,
	`fingerprint` varchar(64) NOT NULL,
	`revision` int NOT NULL,
	`seed` double,
	`result` longtext NOT NULL,
	`method` longtext NOT NULL,
	`finding` longtext NOT NULL,
	`note` varchar(2000) NOT NULL,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `evidence_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `set_aside` (
	`column_id` varchar(36) NOT NULL,
	`row_number` int NOT NULL,
	`study_id` varchar(36) NOT NULL,
	`reason` varchar(1000) NOT NULL,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `set_aside_column_id_row_number_pk` PRIMARY KEY(`column_id`,`row_number`)
);
--> statement-breakpoint
CREATE TABLE `studies` (
	`id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL DEFAULT '',
	`question` varchar(500) NOT NULL DEFAULT '',
	`state` varchar(10) NOT NULL DEFAULT 'open',
	`alpha` double NOT NULL DEFAULT 0.05,
	`subject` varchar(36),
	`revision` int NOT NULL DEFAULT 0,
	`row_count` int NOT NULL DEFAULT 0,
	`subject_count` int,
	`changed_at` datetime(3) NOT NULL,
	`deleted_at` datetime(3),
	CONSTRAINT `studies_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `verdicts` (
	`id` varchar(36) NOT NULL,
	`study_id` varchar(36) NOT NULL,
	`decision` varchar(30) NOT NULL,
	`reason` varchar(1000) NOT NULL,
	`evidence` longtext NOT NULL,
	`revision` int NOT NULL,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	`reopen_reason` varchar(1000),
	`reopen_who` varchar(80),
	`reopen_at` datetime(3),
	CONSTRAINT `verdicts_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `columns_of_study` ON `columns` (`study_id`,`position`);--> statement-breakpoint
CREATE INDEX `evidence_of_study` ON `evidence` (`study_id`,`at`);--> statement-breakpoint
CREATE INDEX `set_aside_of_study` ON `set_aside` (`study_id`);--> statement-breakpoint
CREATE INDEX `verdicts_of_study` ON `verdicts` (`study_id`,`at`);