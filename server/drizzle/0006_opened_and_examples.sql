ALTER TABLE `studies` ADD `opened_at` datetime(3);--> statement-breakpoint
ALTER TABLE `studies` ADD `example` boolean DEFAULT false NOT NULL;