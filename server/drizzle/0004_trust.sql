CREATE TABLE IF NOT EXISTS `staged_columns` (
	`id` varchar(36) COLLATE utf8mb4_bin NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `staged_columns_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `cell_blocks` MODIFY COLUMN `column_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `changes` MODIFY COLUMN `study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `changes` MODIFY COLUMN `token` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `changes` MODIFY COLUMN `place_column` varchar(36) COLLATE utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `columns` MODIFY COLUMN `id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `columns` MODIFY COLUMN `study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `columns` MODIFY COLUMN `frequencies` varchar(36) COLLATE utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `evidence` MODIFY COLUMN `id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` MODIFY COLUMN `study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` MODIFY COLUMN `column_id` varchar(36) COLLATE utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `set_aside` MODIFY COLUMN `column_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `set_aside` MODIFY COLUMN `study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `studies` MODIFY COLUMN `id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `studies` MODIFY COLUMN `subject` varchar(36) COLLATE utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `verdicts` MODIFY COLUMN `id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `verdicts` MODIFY COLUMN `study_id` varchar(36) COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` ADD COLUMN IF NOT EXISTS `recomputed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `evidence` ADD COLUMN IF NOT EXISTS `recomputed_same` boolean;--> statement-breakpoint
ALTER TABLE `studies` ADD COLUMN IF NOT EXISTS `subject_fault` varchar(200);