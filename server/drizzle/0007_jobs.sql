CREATE TABLE `job_chunks` (
	`job_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`order_key` varchar(64) NOT NULL,
	`chunk` int NOT NULL,
	`numbers` longblob NOT NULL,
	CONSTRAINT `job_chunks_job_id_order_key_chunk_pk` PRIMARY KEY(`job_id`,`order_key`,`chunk`)
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`column_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`parts` longtext,
	`analysis` varchar(60) NOT NULL,
	`version` int NOT NULL,
	`request` longtext NOT NULL,
	`fingerprint` varchar(64) NOT NULL,
	`method` longtext NOT NULL,
	`place` longtext NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'running',
	`share` double NOT NULL DEFAULT 0,
	`problem` varchar(500),
	`result` longtext,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `jobs_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `jobs_of_study` ON `jobs` (`study_id`,`at`);