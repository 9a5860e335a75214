SET foreign_key_checks = 0;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `cooks` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `version` int(10) unsigned NOT NULL DEFAULT 1,
  `name` varchar(200) NOT NULL,
  `serve_at` varchar(16) NOT NULL DEFAULT '',
  `zone` varchar(64) NOT NULL DEFAULT '',
  `guests` int(11) NOT NULL DEFAULT 0,
  `serving` varchar(80) NOT NULL DEFAULT '',
  `fridge` varchar(80) NOT NULL DEFAULT '',
  `room` varchar(80) NOT NULL DEFAULT '',
  `created_at` datetime(3) NOT NULL,
  `updated_at` datetime(3) NOT NULL,
  `deleted_at` datetime(3) DEFAULT NULL,
  `plan` longtext NOT NULL DEFAULT '',
  PRIMARY KEY (`id`),
  KEY `by_serving` (`deleted_at`,`serve_at`,`id`)
) ENGINE=InnoDB AUTO_INCREMENT=5 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `cooks` VALUES
(1,1,'Launch day, Ines and Odhran','2026-10-06T19:00','Europe/Dublin',14,'','','','2026-11-26 05:33:02.694','2026-11-26 05:33:02.694',NULL,''),
(2,1,'Lamb trial at the boathouse','2026-11-03T19:00','Europe/Dublin',8,'','','','2026-11-26 05:33:02.699','2026-11-26 05:33:02.699',NULL,''),
(3,2,'Autumn regatta supper','2026-11-28T18:30','Europe/Dublin',34,'180 g','','','2026-11-26 05:33:02.701','2026-11-26 05:33:16.122',NULL,'{\"children\":4,\"appetite\":\"hearty\",\"leftovers\":6,\"quiet\":\"23:00-06:30\",\"hands\":2,\"pits\":[{\"name\":\"Pellet cabinet\",\"kind\":\"pellet\",\"room\":\"\"},{\"name\":\"Kettle\",\"kind\":\"kettle\",\"room\":\"24\"},{\"name\":\"Borrowed offset\",\"kind\":\"offset\",\"room\":\"\"}],\"marks\":[{\"piece\":\"p1\",\"stage\":\"salt\",\"at\":\"2026-11-28T08:00\",\"done\":false},{\"piece\":\"p2\",\"stage\":\"bath\",\"at\":\"2026-11-28T07:00\",\"done\":true}],\"acks\":[{\"piece\":\"p1\",\"rule\":\"cold-side\",\"what\":\"The fridge is warm.\",\"at\":\"2026-11-20T10:00:00Z\"}]}'),
(4,1,'Autumn regatta supper, again','','Europe/Dublin',34,'180 g','','','2026-11-26 05:33:16.131','2026-11-26 05:33:16.131','2026-11-26 05:33:16.137','{\"children\":4,\"appetite\":\"hearty\",\"leftovers\":6,\"quiet\":\"23:00-06:30\",\"hands\":2,\"pits\":[{\"name\":\"Pellet cabinet\",\"kind\":\"pellet\",\"room\":\"\"},{\"name\":\"Kettle\",\"kind\":\"kettle\",\"room\":\"24\"},{\"name\":\"Borrowed offset\",\"kind\":\"offset\",\"room\":\"\"}]}');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `formula_versions` (
  `formula_id` bigint(20) unsigned NOT NULL,
  `version` int(10) unsigned NOT NULL,
  `body` longtext NOT NULL,
  `changes` text NOT NULL,
  `saved_at` datetime(3) NOT NULL,
  PRIMARY KEY (`formula_id`,`version`),
  CONSTRAINT `formula_versions_ibfk_1` FOREIGN KEY (`formula_id`) REFERENCES `formulas` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `formula_versions` VALUES
(1,1,'{\"name\":\"Regatta lamb rub\",\"note\":\"Ines’s: the house rub with less salt.\",\"tags\":[\"lamb\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"4\"},{\"ingredient\":\"black-pepper\",\"form\":\"coarse\",\"parts\":\"3\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"2\"},{\"ingredient\":\"fennel-seed\",\"form\":\"ground\",\"parts\":\"2\"},{\"ingredient\":\"mustard\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"rosemary\",\"form\":\"dried leaf\",\"parts\":\"1\"}]}','from Fennel house rub','2026-11-26 05:33:02.651'),
(1,2,'{\"name\":\"Regatta lamb rub\",\"note\":\"Ines’s: the house rub with less salt.\",\"tags\":[\"lamb\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"3\"},{\"ingredient\":\"black-pepper\",\"form\":\"coarse\",\"parts\":\"3\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"2\"},{\"ingredient\":\"fennel-seed\",\"form\":\"ground\",\"parts\":\"2\"},{\"ingredient\":\"mustard\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"rosemary\",\"form\":\"dried leaf\",\"parts\":\"1\"}]}','kosher salt 3 instead of 4','2026-11-26 05:33:02.654'),
(1,3,'{\"name\":\"Regatta lamb rub\",\"note\":\"A \\\"formula\\\":\\\"12\\\" and an \\\\ end\",\"tags\":[\"lamb\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"3\"},{\"ingredient\":\"black-pepper\",\"form\":\"coarse\",\"parts\":\"3\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"2\"},{\"ingredient\":\"fennel-seed\",\"form\":\"ground\",\"parts\":\"2\"},{\"ingredient\":\"mustard\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"rosemary\",\"form\":\"dried leaf\",\"parts\":\"1\"},{\"ingredient\":\"own-1\",\"form\":\"\",\"parts\":\"0.5\"}]}','The red jar added, 0.5\nanother note','2026-11-26 05:33:16.146'),
(2,1,'{\"name\":\"Lock-keeper’s injection\",\"kind\":\"injection\",\"note\":\"Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.\",\"tags\":[\"beef\"],\"basis\":\"weight\",\"rows\":[{\"ingredient\":\"stock\",\"form\":\"liquid\",\"parts\":\"400 g\"},{\"ingredient\":\"worcestershire-type\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"\",\"form\":\"\",\"formula\":\"1\",\"parts\":\"4 %\"}]}','new','2026-11-26 05:33:02.656'),
(3,1,'{\"name\":\"Slipway spritz\",\"kind\":\"spritz\",\"note\":\"Two of vinegar to one of juice, every 45 minutes.\",\"tags\":[\"pork\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2\"},{\"ingredient\":\"apple-juice\",\"form\":\"liquid\",\"parts\":\"1\"}]}','new','2026-11-26 05:33:02.658'),
(4,1,'{\"name\":\"Boathouse glaze\",\"kind\":\"glaze\",\"note\":\"Warm, for the last twenty minutes.\",\"tags\":[\"pork\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"honey\",\"form\":\"liquid\",\"parts\":\"1/2 cup\"},{\"ingredient\":\"ketchup\",\"form\":\"liquid\",\"parts\":\"1/2 cup\"},{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"soy-sauce\",\"form\":\"liquid\",\"parts\":\"1 Tbsp\"}]}','new','2026-11-26 05:33:02.660');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `formulas` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `version` int(10) unsigned NOT NULL DEFAULT 1,
  `name` varchar(200) NOT NULL,
  `kind` varchar(16) NOT NULL DEFAULT 'rub',
  `note` varchar(1000) NOT NULL DEFAULT '',
  `tags` varchar(400) NOT NULL DEFAULT '',
  `body` longtext NOT NULL,
  `created_at` datetime(3) NOT NULL,
  `updated_at` datetime(3) NOT NULL,
  `deleted_at` datetime(3) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `by_name` (`deleted_at`,`name`,`id`)
) ENGINE=InnoDB AUTO_INCREMENT=5 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `formulas` VALUES
(1,3,'Regatta lamb rub','rub','A \"formula\":\"12\" and an \\ end','lamb,regatta','{\"name\":\"Regatta lamb rub\",\"note\":\"A \\\"formula\\\":\\\"12\\\" and an \\\\ end\",\"tags\":[\"lamb\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"3\"},{\"ingredient\":\"black-pepper\",\"form\":\"coarse\",\"parts\":\"3\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"2\"},{\"ingredient\":\"fennel-seed\",\"form\":\"ground\",\"parts\":\"2\"},{\"ingredient\":\"mustard\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"rosemary\",\"form\":\"dried leaf\",\"parts\":\"1\"},{\"ingredient\":\"own-1\",\"form\":\"\",\"parts\":\"0.5\"}]}','2026-11-26 05:33:02.651','2026-11-26 05:33:16.146',NULL),
(2,1,'Lock-keeper’s injection','injection','Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.','beef','{\"name\":\"Lock-keeper’s injection\",\"kind\":\"injection\",\"note\":\"Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.\",\"tags\":[\"beef\"],\"basis\":\"weight\",\"rows\":[{\"ingredient\":\"stock\",\"form\":\"liquid\",\"parts\":\"400 g\"},{\"ingredient\":\"worcestershire-type\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"\",\"form\":\"\",\"formula\":\"1\",\"parts\":\"4 %\"}]}','2026-11-26 05:33:02.656','2026-11-26 05:33:02.656',NULL),
(3,1,'Slipway spritz','spritz','Two of vinegar to one of juice, every 45 minutes.','pork,regatta','{\"name\":\"Slipway spritz\",\"kind\":\"spritz\",\"note\":\"Two of vinegar to one of juice, every 45 minutes.\",\"tags\":[\"pork\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2\"},{\"ingredient\":\"apple-juice\",\"form\":\"liquid\",\"parts\":\"1\"}]}','2026-11-26 05:33:02.658','2026-11-26 05:33:02.658',NULL),
(4,1,'Boathouse glaze','glaze','Warm, for the last twenty minutes.','pork','{\"name\":\"Boathouse glaze\",\"kind\":\"glaze\",\"note\":\"Warm, for the last twenty minutes.\",\"tags\":[\"pork\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"honey\",\"form\":\"liquid\",\"parts\":\"1/2 cup\"},{\"ingredient\":\"ketchup\",\"form\":\"liquid\",\"parts\":\"1/2 cup\"},{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"soy-sauce\",\"form\":\"liquid\",\"parts\":\"1 Tbsp\"}]}','2026-11-26 05:33:02.660','2026-11-26 05:33:02.660',NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `goose_db_version` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `version_id` bigint(20) NOT NULL,
  `is_applied` tinyint(1) NOT NULL,
  `tstamp` datetime DEFAULT current_timestamp(),
  PRIMARY KEY (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=8 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `goose_db_version` VALUES
(1,0,1,'2026-11-26 05:33:02'),
(2,1,1,'2026-11-26 05:33:02'),
(3,2,1,'2026-11-26 05:33:02'),
(4,3,1,'2026-11-26 05:33:02'),
(5,4,1,'2026-11-26 05:33:02'),
(6,5,1,'2026-11-26 05:33:02'),
(7,6,1,'2026-11-26 05:33:02');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `jars` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `version` int(10) unsigned NOT NULL DEFAULT 1,
  `name` varchar(200) NOT NULL,
  `body` longtext NOT NULL,
  `created_at` datetime(3) NOT NULL,
  `updated_at` datetime(3) NOT NULL,
  `deleted_at` datetime(3) DEFAULT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=4 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `jars` VALUES
(1,1,'Regatta lamb rub','{\"formula\":{\"id\":\"1\",\"name\":\"Regatta lamb rub\",\"note\":\"Ines’s: the house rub with less salt.\",\"tags\":[\"lamb\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"3\"},{\"ingredient\":\"black-pepper\",\"form\":\"coarse\",\"parts\":\"3\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"2\"},{\"ingredient\":\"fennel-seed\",\"form\":\"ground\",\"parts\":\"2\"},{\"ingredient\":\"mustard\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"rosemary\",\"form\":\"dried leaf\",\"parts\":\"1\"}]},\"made\":\"2026-10-31\",\"amount\":\"320 g\",\"note\":\"\",\"draws\":[{\"amount\":\"74 g\",\"for\":\"Lamb trial at the boathouse\",\"day\":\"2026-11-02\"}]}','2026-11-26 05:33:02.687','2026-11-26 05:33:02.687',NULL),
(2,1,'Slipway spritz','{\"formula\":{\"id\":\"3\",\"name\":\"Slipway spritz\",\"kind\":\"spritz\",\"note\":\"Two of vinegar to one of juice, every 45 minutes.\",\"tags\":[\"pork\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2\"},{\"ingredient\":\"apple-juice\",\"form\":\"liquid\",\"parts\":\"1\"}]},\"made\":\"2026-11-07\",\"amount\":\"500 mL\",\"note\":\"\",\"draws\":[{\"amount\":\"180 mL\",\"for\":\"Launch day\",\"day\":\"2026-11-08\"}]}','2026-11-26 05:33:02.689','2026-11-26 05:33:02.689',NULL),
(3,1,'Boathouse sweet rub','{\"formula\":{\"id\":\"boathouse-sweet\",\"name\":\"Boathouse sweet rub\",\"note\":\"Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.\",\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"brown-sugar\",\"form\":\"loose\",\"parts\":\"4\"},{\"ingredient\":\"paprika\",\"form\":\"powder\",\"parts\":\"3\"},{\"ingredient\":\"kosher-salt\",\"form\":\"dense flake\",\"parts\":\"2\"},{\"ingredient\":\"mild-chilli\",\"form\":\"powder\",\"parts\":\"1\"},{\"ingredient\":\"garlic\",\"form\":\"granulated\",\"parts\":\"1\"},{\"ingredient\":\"onion\",\"form\":\"granulated\",\"parts\":\"1\"},{\"ingredient\":\"cayenne\",\"form\":\"powder\",\"parts\":\"1/4\"}]},\"made\":\"2026-11-17\",\"amount\":\"400 g\",\"note\":\"\",\"draws\":null}','2026-11-26 05:33:02.691','2026-11-26 05:33:02.691',NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `larder_things` (
  `thing` varchar(64) NOT NULL,
  `price` varchar(100) NOT NULL DEFAULT '',
  `stock` varchar(100) NOT NULL DEFAULT '',
  `updated_at` datetime(3) NOT NULL,
  PRIMARY KEY (`thing`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `larder_things` VALUES
('apple-juice','€1.80 per L','','2026-11-26 05:33:02.678'),
('beef-chuck-roll','€11.80/kg','','2026-11-26 05:33:02.680'),
('black-pepper','€14.50 for 500 g','120 g','2026-11-26 05:33:02.665'),
('brown-sugar','€1.90 for 500 g','500 g','2026-11-26 05:33:02.666'),
('chicken-leg','€4.60/kg','','2026-11-26 05:33:02.682'),
('cider-vinegar','€2.20 for 500 mL','300 mL','2026-11-26 05:33:02.676'),
('fennel-seed','€5.60 for 250 g','','2026-11-26 05:33:02.670'),
('garlic','€7.80 for 400 g','150 g','2026-11-26 05:33:02.669'),
('kosher-salt','€3.40 for 1 kg','600 g','2026-11-26 05:33:02.661'),
('lamb-shoulder-bone-in','€13.50/kg','','2026-11-26 05:33:02.679'),
('mustard','€4.10 for 200 g','','2026-11-26 05:33:02.671'),
('own-1','€5 for 100 g','60 g','2026-11-26 05:33:16.140'),
('paprika','€6.20 for 250 g','90 g','2026-11-26 05:33:02.667'),
('pork-loin','€9.40/kg','','2026-11-26 05:33:02.681'),
('rosemary','€3.30 for 50 g','','2026-11-26 05:33:02.672'),
('sea-salt','€2.10 for 500 g','200 g','2026-11-26 05:33:02.663'),
('stock','€2.40 for 1 L','','2026-11-26 05:33:02.674'),
('venison-haunch','€21.00/kg','','2026-11-26 05:33:02.683');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `own_ingredients` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `version` int(10) unsigned NOT NULL DEFAULT 1,
  `name` varchar(200) NOT NULL,
  `body` longtext NOT NULL,
  `created_at` datetime(3) NOT NULL,
  `updated_at` datetime(3) NOT NULL,
  `deleted_at` datetime(3) DEFAULT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `own_ingredients` VALUES
(1,1,'The red jar','{\"name\":\"The red jar\",\"kind\":\"\",\"grind\":\"\",\"teaspoon\":\"\",\"salt\":\"31 %\",\"sugar\":\"22 %\",\"fat\":\"\",\"water\":\"\",\"nitrite\":\"\",\"phosphate\":\"\",\"allergens\":[\"celery\"]}','2026-11-26 05:33:02.685','2026-11-26 05:33:02.685',NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `photos` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `cook_id` bigint(20) unsigned NOT NULL,
  `piece` varchar(60) NOT NULL DEFAULT '',
  `note` varchar(400) NOT NULL DEFAULT '',
  `width` int(10) unsigned NOT NULL,
  `height` int(10) unsigned NOT NULL,
  `data` mediumblob NOT NULL,
  `created_at` datetime(3) NOT NULL,
  `deleted_at` datetime(3) DEFAULT NULL,
  PRIMARY KEY (`id`),
  KEY `of_cook` (`cook_id`,`deleted_at`,`id`),
  CONSTRAINT `photos_ibfk_1` FOREIGN KEY (`cook_id`) REFERENCES `cooks` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `photos` VALUES
(1,3,'p1','before',1280,800,0xFFD8FFD9,'2026-11-26 05:33:16.217',NULL);
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `pieces` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `cook_id` bigint(20) unsigned NOT NULL,
  `position` int(11) NOT NULL,
  `label` varchar(200) NOT NULL DEFAULT '',
  `cut` varchar(64) NOT NULL,
  `pieces` int(11) NOT NULL DEFAULT 1,
  `bought` varchar(80) NOT NULL DEFAULT '',
  `trimmed` varchar(80) NOT NULL DEFAULT '',
  `together` tinyint(1) NOT NULL DEFAULT 0,
  `trim_style` varchar(16) NOT NULL DEFAULT '',
  `thickness` varchar(80) NOT NULL DEFAULT '',
  `faces` varchar(8) NOT NULL DEFAULT '',
  `mode` varchar(16) NOT NULL DEFAULT '',
  `target` varchar(80) NOT NULL DEFAULT '',
  `free_source` varchar(20) NOT NULL DEFAULT '',
  `coat` varchar(16) NOT NULL DEFAULT '',
  `binder` tinyint(1) NOT NULL DEFAULT 0,
  `band` varchar(16) NOT NULL DEFAULT '',
  `spare` varchar(80) NOT NULL DEFAULT '',
  `formula` varchar(64) NOT NULL DEFAULT '',
  `formula_name` varchar(200) NOT NULL DEFAULT '',
  `formula_note` varchar(1000) NOT NULL DEFAULT '',
  `formula_kind` varchar(16) NOT NULL DEFAULT '',
  `formula_tags` varchar(400) NOT NULL DEFAULT '',
  `formula_basis` varchar(16) NOT NULL DEFAULT '',
  `wait_style` varchar(16) NOT NULL DEFAULT '',
  `wait_for` varchar(80) NOT NULL DEFAULT '',
  `wait_open` tinyint(1) NOT NULL DEFAULT 0,
  `pit` varchar(80) NOT NULL DEFAULT '',
  `fire_time` varchar(80) NOT NULL DEFAULT '',
  `rest` varchar(80) NOT NULL DEFAULT '',
  `temper` varchar(80) NOT NULL DEFAULT '',
  `wet` longtext NOT NULL DEFAULT '',
  PRIMARY KEY (`id`),
  UNIQUE KEY `in_order` (`cook_id`,`position`),
  CONSTRAINT `pieces_ibfk_1` FOREIGN KEY (`cook_id`) REFERENCES `cooks` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB AUTO_INCREMENT=19 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `pieces` VALUES
(1,1,0,'','chicken-leg',12,'3.7 kg','',1,'light','','','target','0.9 %','','light',0,'seasoned','','lemon-herb','Lemon and herb rub','For poultry: salt-led and free of sugar, so the skin dries instead of scorching.','','','weight','overnight','14 h',1,'','','','','{\"key\":\"p1\",\"bath\":{\"kind\":\"equilibrium\",\"strength\":\"\",\"target\":\"0.6 %\",\"liquid\":\"\",\"pot\":\"9 L\",\"for\":\"18 h\",\"hot\":\"\"}}'),
(2,1,1,'','pork-loin',1,'1.8 kg','',0,'light','','','coat','','','medium',1,'seasoned','','boathouse-sweet','Boathouse sweet rub','Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.','','','volume','overnight','10 h',1,'120 °C','','','','{\"key\":\"p2\"}'),
(3,2,0,'','lamb-shoulder-bone-in',1,'2.7 kg','2.4 kg',0,'usual','85 mm','','coat','','','medium',0,'seasoned','','fennel-house','Fennel house rub','Savoury, for lamb and pork shoulders. No sugar, so it takes a hot pit.','','','volume','day','31 h',1,'','','','','{\"key\":\"p1\"}'),
(9,3,0,'','lamb-shoulder-bone-in',2,'2.7 kg','2.4 kg',0,'usual','85 mm','','coat','','','medium',0,'seasoned','','fennel-house','Fennel house rub','Savoury, for lamb and pork shoulders. No sugar, so it takes a hot pit.','','','volume','day','31 h',1,'','','','','{\"key\":\"p1\",\"layers\":[{\"kind\":\"spritz\",\"formula\":{\"id\":\"3\",\"name\":\"Slipway spritz\",\"kind\":\"spritz\",\"note\":\"Two of vinegar to one of juice, every 45 minutes.\",\"tags\":[\"pork\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2\"},{\"ingredient\":\"apple-juice\",\"form\":\"liquid\",\"parts\":\"1\"}]},\"amount\":\"2 Tbsp\"}],\"grain\":\"0\"}'),
(10,3,1,'Chuck roll, for pulling','beef-chuck-roll',1,'4.4 kg','',0,'usual','','','target','1.1 %','','heavy',0,'seasoned','','pepper-heavy','Pepper-heavy, 2 : 1','Two spoons of pepper to one of salt: about equal by weight. Room for a heavy coat on a big cut.','','beef,club','volume','day','24 h',0,'','','','','{\"key\":\"p2\",\"inject\":{\"formula\":{\"id\":\"2\",\"name\":\"Lock-keeper’s injection\",\"kind\":\"injection\",\"note\":\"Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.\",\"tags\":[\"beef\"],\"basis\":\"weight\",\"rows\":[{\"ingredient\":\"stock\",\"form\":\"liquid\",\"parts\":\"400 g\"},{\"ingredient\":\"worcestershire-type\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"\",\"form\":\"\",\"formula\":\"1\",\"parts\":\"4 %\"}]},\"pump\":\"8 %\",\"spacing\":\"\",\"syringe\":\"\",\"bore\":\"3 mm\"},\"weighed\":[\"10\",\"10\"],\"choices\":{\"rest\":\"holder\",\"slice\":\"pulled\"},\"done\":\"95 °C\"}'),
(11,3,2,'','pork-loin',1,'1.8 kg','',0,'light','','','coat','','','medium',1,'seasoned','','boathouse-sweet','Boathouse sweet rub','Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.','','','volume','overnight','10 h',1,'120 °C','','','','{\"key\":\"p3\",\"on\":2}'),
(12,3,3,'','chicken-leg',12,'3.7 kg','',1,'light','','','target','0.9 %','','light',0,'seasoned','','1','Regatta lamb rub','Ines’s: the house rub with less salt.','','lamb,regatta','volume','overnight','14 h',1,'','','','','{\"key\":\"p4\",\"bath\":{\"kind\":\"equilibrium\",\"strength\":\"\",\"target\":\"0.6 %\",\"liquid\":\"\",\"pot\":\"9 L\",\"for\":\"18 h\",\"hot\":\"\"},\"on\":1}'),
(13,3,4,'Odhran’s \"haunch\", 1\\2 🦀','venison-haunch',1,'2 kg','',0,'close','','','coat','','','light',0,'mild','','juniper-coffee','Juniper and coffee rub','For venison and beef. Weighed, so the salt is the same whatever the crystal.','','','weight','overnight','12 h',1,'','','','','{\"key\":\"p5\",\"grain\":\"25\",\"on\":2}'),
(14,4,0,'','lamb-shoulder-bone-in',2,'2.7 kg','2.4 kg',0,'usual','85 mm','','coat','','','medium',0,'seasoned','','fennel-house','Fennel house rub','Savoury, for lamb and pork shoulders. No sugar, so it takes a hot pit.','','','volume','day','31 h',1,'','','','','{\"key\":\"p1\",\"layers\":[{\"kind\":\"spritz\",\"formula\":{\"id\":\"3\",\"name\":\"Slipway spritz\",\"kind\":\"spritz\",\"note\":\"Two of vinegar to one of juice, every 45 minutes.\",\"tags\":[\"pork\",\"regatta\"],\"basis\":\"volume\",\"rows\":[{\"ingredient\":\"cider-vinegar\",\"form\":\"liquid\",\"parts\":\"2\"},{\"ingredient\":\"apple-juice\",\"form\":\"liquid\",\"parts\":\"1\"}]},\"amount\":\"2 Tbsp\"}],\"grain\":\"0\"}'),
(15,4,1,'Chuck roll, for pulling','beef-chuck-roll',1,'4.4 kg','',0,'usual','','','target','1.1 %','','heavy',0,'seasoned','','pepper-heavy','Pepper-heavy, 2 : 1','Two spoons of pepper to one of salt: about equal by weight. Room for a heavy coat on a big cut.','','beef,club','volume','day','24 h',0,'','','','','{\"key\":\"p2\",\"inject\":{\"formula\":{\"id\":\"2\",\"name\":\"Lock-keeper’s injection\",\"kind\":\"injection\",\"note\":\"Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.\",\"tags\":[\"beef\"],\"basis\":\"weight\",\"rows\":[{\"ingredient\":\"stock\",\"form\":\"liquid\",\"parts\":\"400 g\"},{\"ingredient\":\"worcestershire-type\",\"form\":\"liquid\",\"parts\":\"2 Tbsp\"},{\"ingredient\":\"\",\"form\":\"\",\"formula\":\"1\",\"parts\":\"4 %\"}]},\"pump\":\"8 %\",\"spacing\":\"\",\"syringe\":\"\",\"bore\":\"3 mm\"},\"weighed\":[\"10\",\"10\"],\"choices\":{\"rest\":\"holder\",\"slice\":\"pulled\"},\"done\":\"95 °C\"}'),
(16,4,2,'','pork-loin',1,'1.8 kg','',0,'light','','','coat','','','medium',1,'seasoned','','boathouse-sweet','Boathouse sweet rub','Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.','','','volume','overnight','10 h',1,'120 °C','','','','{\"key\":\"p3\",\"on\":2}'),
(17,4,3,'','chicken-leg',12,'3.7 kg','',1,'light','','','target','0.9 %','','light',0,'seasoned','','1','Regatta lamb rub','Ines’s: the house rub with less salt.','','lamb,regatta','volume','overnight','14 h',1,'','','','','{\"key\":\"p4\",\"bath\":{\"kind\":\"equilibrium\",\"strength\":\"\",\"target\":\"0.6 %\",\"liquid\":\"\",\"pot\":\"9 L\",\"for\":\"18 h\",\"hot\":\"\"},\"on\":1}'),
(18,4,4,'Odhran’s \"haunch\", 1\\2 🦀','venison-haunch',1,'2 kg','',0,'close','','','coat','','','light',0,'mild','','juniper-coffee','Juniper and coffee rub','For venison and beef. Weighed, so the salt is the same whatever the crystal.','','','weight','overnight','12 h',1,'','','','','{\"key\":\"p5\",\"grain\":\"25\",\"on\":2}');
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `rub_rows` (
  `id` bigint(20) unsigned NOT NULL AUTO_INCREMENT,
  `piece_id` bigint(20) unsigned NOT NULL,
  `position` int(11) NOT NULL,
  `ingredient` varchar(64) NOT NULL,
  `form` varchar(64) NOT NULL DEFAULT '',
  `formula` varchar(64) NOT NULL DEFAULT '',
  `parts` varchar(80) NOT NULL DEFAULT '',
  PRIMARY KEY (`id`),
  UNIQUE KEY `in_order` (`piece_id`,`position`),
  CONSTRAINT `rub_rows_ibfk_1` FOREIGN KEY (`piece_id`) REFERENCES `pieces` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB AUTO_INCREMENT=110 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;
INSERT INTO `rub_rows` VALUES
(1,1,0,'kosher-salt','dense flake','','55'),
(2,1,1,'black-pepper','medium','','12'),
(3,1,2,'lemon-peel','ground','','10'),
(4,1,3,'garlic','granulated','','10'),
(5,1,4,'thyme','ground','','6'),
(6,1,5,'celery-seed','ground','','4'),
(7,1,6,'paprika','powder','','8'),
(8,2,0,'brown-sugar','loose','','4'),
(9,2,1,'paprika','powder','','3'),
(10,2,2,'kosher-salt','dense flake','','2'),
(11,2,3,'mild-chilli','powder','','1'),
(12,2,4,'garlic','granulated','','1'),
(13,2,5,'onion','granulated','','1'),
(14,2,6,'cayenne','powder','','1/4'),
(15,3,0,'kosher-salt','dense flake','','4'),
(16,3,1,'black-pepper','coarse','','3'),
(17,3,2,'garlic','granulated','','2'),
(18,3,3,'fennel-seed','ground','','2'),
(19,3,4,'mustard','powder','','1'),
(20,3,5,'rosemary','dried leaf','','1'),
(50,9,0,'kosher-salt','dense flake','','4'),
(51,9,1,'black-pepper','coarse','','3'),
(52,9,2,'garlic','granulated','','2'),
(53,9,3,'fennel-seed','ground','','2'),
(54,9,4,'mustard','powder','','1'),
(55,9,5,'rosemary','dried leaf','','1'),
(56,10,0,'kosher-salt','dense flake','','1'),
(57,10,1,'black-pepper','coarse','','2'),
(58,11,0,'brown-sugar','loose','','4'),
(59,11,1,'paprika','powder','','3'),
(60,11,2,'kosher-salt','dense flake','','2'),
(61,11,3,'mild-chilli','powder','','1'),
(62,11,4,'garlic','granulated','','1'),
(63,11,5,'onion','granulated','','1'),
(64,11,6,'cayenne','powder','','1/4'),
(65,11,7,'own-1','','','1'),
(66,12,0,'kosher-salt','dense flake','','3'),
(67,12,1,'black-pepper','coarse','','3'),
(68,12,2,'garlic','granulated','','2'),
(69,12,3,'fennel-seed','ground','','2'),
(70,12,4,'mustard','powder','','1'),
(71,12,5,'rosemary','dried leaf','','1'),
(72,13,0,'sea-salt','fine','','30'),
(73,13,1,'black-pepper','coarse','','20'),
(74,13,2,'coffee','espresso grind','','20'),
(75,13,3,'juniper','crushed','','12'),
(76,13,4,'thyme','dried leaf','','6'),
(77,13,5,'raw-sugar','coarse crystals','','8'),
(78,13,6,'allspice','ground','','4'),
(79,13,7,'','','1','1'),
(80,14,0,'kosher-salt','dense flake','','4'),
(81,14,1,'black-pepper','coarse','','3'),
(82,14,2,'garlic','granulated','','2'),
(83,14,3,'fennel-seed','ground','','2'),
(84,14,4,'mustard','powder','','1'),
(85,14,5,'rosemary','dried leaf','','1'),
(86,15,0,'kosher-salt','dense flake','','1'),
(87,15,1,'black-pepper','coarse','','2'),
(88,16,0,'brown-sugar','loose','','4'),
(89,16,1,'paprika','powder','','3'),
(90,16,2,'kosher-salt','dense flake','','2'),
(91,16,3,'mild-chilli','powder','','1'),
(92,16,4,'garlic','granulated','','1'),
(93,16,5,'onion','granulated','','1'),
(94,16,6,'cayenne','powder','','1/4'),
(95,16,7,'own-1','','','1'),
(96,17,0,'kosher-salt','dense flake','','3'),
(97,17,1,'black-pepper','coarse','','3'),
(98,17,2,'garlic','granulated','','2'),
(99,17,3,'fennel-seed','ground','','2'),
(100,17,4,'mustard','powder','','1'),
(101,17,5,'rosemary','dried leaf','','1'),
(102,18,0,'sea-salt','fine','','30'),
(103,18,1,'black-pepper','coarse','','20'),
(104,18,2,'coffee','espresso grind','','20'),
(105,18,3,'juniper','crushed','','12'),
(106,18,4,'thyme','dried leaf','','6'),
(107,18,5,'raw-sugar','coarse crystals','','8'),
(108,18,6,'allspice','ground','','4'),
(109,18,7,'','','1','1');
