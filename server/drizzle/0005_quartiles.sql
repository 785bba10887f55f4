ALTER TABLE `studies` ADD COLUMN IF NOT EXISTS `quantile_type` varchar(6) DEFAULT '7' NOT NULL;
