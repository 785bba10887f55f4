CREATE TABLE `left_in` (
	`column_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`row_number` int NOT NULL,
	`study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`reason` varchar(1000) NOT NULL,
	`who` varchar(80) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `left_in_column_id_row_number_pk` PRIMARY KEY(`column_id`,`row_number`)
);
--> statement-breakpoint
CREATE INDEX `left_in_of_study` ON `left_in` (`study_id`);