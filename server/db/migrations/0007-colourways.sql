-- A recipe is one melt. What is ordered, racked and bagged is a colourway: one melt, or layers of melts in their order.
-- A colourway of one melt goes by the melt's id, name and look.
DROP VIEW mark_now;
DROP VIEW shot_live;

CREATE TABLE colourway (
  id TEXT PRIMARY KEY,
  recipe_id TEXT UNIQUE REFERENCES recipe (id),
  name TEXT UNIQUE COLLATE NOCASE,
  hex TEXT,
  notes TEXT NOT NULL DEFAULT '',
  away_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL,
  CHECK ((recipe_id IS NULL) = (name IS NOT NULL) AND (name IS NULL) = (hex IS NULL))
) STRICT;
CREATE TABLE colourway_revision (
  id TEXT PRIMARY KEY,
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  number INTEGER NOT NULL CHECK (number > 0),
  reason TEXT NOT NULL,
  created_at TEXT NOT NULL,
  UNIQUE (colourway_id, number)
) STRICT;
CREATE TABLE colourway_layer (
  id TEXT PRIMARY KEY,
  revision_id TEXT NOT NULL REFERENCES colourway_revision (id),
  position INTEGER NOT NULL,
  place TEXT NOT NULL,
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  measure TEXT NOT NULL CHECK (measure IN ('share', 'ml', 'rest')),
  amount REAL CHECK (amount > 0),
  -- How it comes to hold on the layer before it; the first joins nothing.
  joins TEXT,
  wanted_scale TEXT CHECK (wanted_scale IN ('A', '00')),
  wanted_hardness REAL,
  UNIQUE (revision_id, position),
  CHECK ((measure = 'rest') = (amount IS NULL)),
  CHECK ((position = 0) = (joins IS NULL))
) STRICT;
CREATE TRIGGER colourway_revision_no_update BEFORE UPDATE ON colourway_revision BEGIN SELECT RAISE(ABORT, 'colourway_revision rows are only added'); END;
CREATE TRIGGER colourway_revision_no_delete BEFORE DELETE ON colourway_revision BEGIN SELECT RAISE(ABORT, 'colourway_revision rows are only added'); END;
CREATE TRIGGER colourway_layer_no_update BEFORE UPDATE ON colourway_layer BEGIN SELECT RAISE(ABORT, 'colourway_layer rows are only added'); END;
CREATE TRIGGER colourway_layer_no_delete BEFORE DELETE ON colourway_layer BEGIN SELECT RAISE(ABORT, 'colourway_layer rows are only added'); END;
CREATE INDEX colourway_layer_by_recipe ON colourway_layer (recipe_id);
CREATE TRIGGER recipe_is_a_colourway AFTER INSERT ON recipe BEGIN
  INSERT INTO colourway (id, recipe_id, created_at) VALUES (NEW.id, NEW.id, NEW.created_at);
  INSERT INTO colourway_revision (id, colourway_id, number, reason, created_at) VALUES (NEW.id, NEW.id, 1, 'one melt', NEW.created_at);
  INSERT INTO colourway_layer (id, revision_id, position, place, recipe_id, measure, amount)
    VALUES (NEW.id, NEW.id, 0, 'whole', NEW.id, 'share', 1);
END;
INSERT INTO colourway (id, recipe_id, created_at) SELECT id, id, created_at FROM recipe;
INSERT INTO colourway_revision (id, colourway_id, number, reason, created_at) SELECT id, id, 1, 'one melt', created_at FROM recipe;
INSERT INTO colourway_layer (id, revision_id, position, place, recipe_id, measure, amount)
  SELECT id, id, 0, 'whole', id, 'share', 1 FROM recipe;
CREATE VIEW colourway_called AS
  SELECT c.id, c.recipe_id, coalesce(c.name, recipe.name) AS name, coalesce(c.hex, recipe.hex) AS hex,
    iif(c.recipe_id IS NULL, c.away_at, recipe.away_at) AS away_at
  FROM colourway c LEFT JOIN recipe ON recipe.id = c.recipe_id;

CREATE TABLE order_line_of_colourway (
  id TEXT PRIMARY KEY,
  order_id TEXT NOT NULL REFERENCES customer_order (id),
  position INTEGER NOT NULL,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  packs INTEGER NOT NULL CHECK (packs > 0),
  per_pack INTEGER NOT NULL CHECK (per_pack > 0),
  price_minor INTEGER CHECK (price_minor >= 0),
  UNIQUE (order_id, position)
) STRICT;
INSERT INTO order_line_of_colourway (id, order_id, position, bait_id, colourway_id, packs, per_pack, price_minor)
  SELECT id, order_id, position, bait_id, recipe_id, packs, per_pack, price_minor FROM order_line;
DROP TABLE order_line;
ALTER TABLE order_line_of_colourway RENAME TO order_line;
CREATE INDEX order_line_by_order ON order_line (order_id);

-- What a bag holds, a row each: sets and mixed bags are bags like any other.
CREATE TABLE bag_content (
  bag_id TEXT NOT NULL REFERENCES bag (id),
  position INTEGER NOT NULL,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  PRIMARY KEY (bag_id, position)
) STRICT, WITHOUT ROWID;
INSERT INTO bag_content (bag_id, position, bait_id, colourway_id, baits) SELECT id, 0, bait_id, recipe_id, baits FROM bag;
CREATE TABLE bag_with_contents (
  id TEXT PRIMARY KEY,
  code TEXT NOT NULL UNIQUE,
  order_line_id TEXT REFERENCES order_line (id),
  at TEXT NOT NULL
) STRICT;
INSERT INTO bag_with_contents (id, code, order_line_id, at) SELECT id, code, order_line_id, at FROM bag;
DROP TABLE bag;
ALTER TABLE bag_with_contents RENAME TO bag;
CREATE INDEX bag_by_line ON bag (order_line_id);
CREATE INDEX bag_by_code ON bag (code COLLATE NOCASE);
CREATE TRIGGER bag_no_update BEFORE UPDATE ON bag BEGIN SELECT RAISE(ABORT, 'bag rows are only added'); END;
CREATE TRIGGER bag_no_delete BEFORE DELETE ON bag BEGIN SELECT RAISE(ABORT, 'bag rows are only added'); END;
CREATE TRIGGER bag_content_no_update BEFORE UPDATE ON bag_content BEGIN SELECT RAISE(ABORT, 'bag_content rows are only added'); END;
CREATE TRIGGER bag_content_no_delete BEFORE DELETE ON bag_content BEGIN SELECT RAISE(ABORT, 'bag_content rows are only added'); END;

-- Baits in and out of the rack, by the cup that led their shots; the other cups of a shot are its parts.
CREATE TABLE stock_move_of_colourway (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL CHECK (kind IN ('poured', 'packed', 'unpacked', 'fished', 'given', 'scrapped', 'regraded', 'reversed')),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  grade TEXT NOT NULL DEFAULT 'sell' CHECK (grade IN ('sell', 'own')),
  baits INTEGER NOT NULL CHECK (baits <> 0),
  bag_id TEXT REFERENCES bag (id),
  reverses TEXT UNIQUE REFERENCES stock_move (id),
  note TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;
INSERT INTO stock_move_of_colourway (seq, id, kind, bait_id, colourway_id, pour_id, grade, baits, bag_id, reverses, note, at)
  SELECT seq, id, kind, bait_id, recipe_id, pour_id, grade, baits, bag_id, reverses, note, at FROM stock_move;
DROP TABLE stock_move;
ALTER TABLE stock_move_of_colourway RENAME TO stock_move;
CREATE INDEX stock_by_what ON stock_move (bait_id, colourway_id, pour_id);
CREATE INDEX stock_by_pour ON stock_move (pour_id);
CREATE INDEX stock_by_bag ON stock_move (bag_id);
CREATE INDEX stock_move_left ON stock_move (seq) WHERE kind IN ('fished', 'given', 'scrapped');
CREATE TRIGGER stock_move_no_update BEFORE UPDATE ON stock_move BEGIN SELECT RAISE(ABORT, 'stock_move rows are only added'); END;
CREATE TRIGGER stock_move_no_delete BEFORE DELETE ON stock_move BEGIN SELECT RAISE(ABORT, 'stock_move rows are only added'); END;
CREATE TABLE rack_level_of_colourway (
  pour_id TEXT NOT NULL REFERENCES pour (id),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  grade TEXT NOT NULL CHECK (grade IN ('sell', 'own')),
  baits INTEGER NOT NULL,
  last_shot_at TEXT,
  PRIMARY KEY (pour_id, bait_id, colourway_id, grade)
) STRICT, WITHOUT ROWID;
INSERT INTO rack_level_of_colourway SELECT pour_id, bait_id, recipe_id, grade, baits, last_shot_at FROM rack_level;
DROP TABLE rack_level;
ALTER TABLE rack_level_of_colourway RENAME TO rack_level;
CREATE INDEX rack_level_there ON rack_level (colourway_id, bait_id) WHERE baits <> 0;

-- A shot draws from one or more cups, each as it was at that moment; it is done with its last part.
CREATE TABLE shot_part (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  shot_id TEXT NOT NULL REFERENCES shot (id),
  layer INTEGER NOT NULL CHECK (layer >= 0),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  dose_seq INTEGER NOT NULL,
  heat_seq INTEGER NOT NULL,
  ml REAL NOT NULL CHECK (ml > 0),
  at TEXT NOT NULL
) STRICT;
INSERT INTO shot_part (id, shot_id, layer, pour_id, dose_seq, heat_seq, ml, at)
  SELECT s.id, s.id, 0, s.pour_id, s.dose_seq, s.heat_seq, m.cavities * m.cavity_ml + m.sprue_ml + m.runner_ml, s.at
  FROM shot s JOIN mold m ON m.id = s.mold_id WHERE s.reverses IS NULL ORDER BY s.seq;
CREATE INDEX shot_part_by_shot ON shot_part (shot_id, layer);
CREATE INDEX shot_part_by_pour ON shot_part (pour_id, shot_id);
CREATE TRIGGER shot_part_no_update BEFORE UPDATE ON shot_part BEGIN SELECT RAISE(ABORT, 'shot_part rows are only added'); END;
CREATE TRIGGER shot_part_no_delete BEFORE DELETE ON shot_part BEGIN SELECT RAISE(ABORT, 'shot_part rows are only added'); END;
ALTER TABLE shot DROP COLUMN dose_seq;
ALTER TABLE shot DROP COLUMN heat_seq;

-- A layer that was lifted out of a cavity and poured again: plastic and minutes lost, no bait.
CREATE TABLE layer_redo (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  shot_id TEXT NOT NULL REFERENCES shot (id),
  layer INTEGER NOT NULL CHECK (layer >= 0),
  cavity INTEGER NOT NULL CHECK (cavity >= 1),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  ml REAL NOT NULL CHECK (ml > 0),
  minutes REAL CHECK (minutes >= 0),
  reason TEXT,
  reverses TEXT UNIQUE REFERENCES layer_redo (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX layer_redo_by_shot ON layer_redo (shot_id);
CREATE INDEX layer_redo_by_pour ON layer_redo (pour_id);
CREATE TRIGGER layer_redo_no_update BEFORE UPDATE ON layer_redo BEGIN SELECT RAISE(ABORT, 'layer_redo rows are only added'); END;
CREATE TRIGGER layer_redo_no_delete BEFORE DELETE ON layer_redo BEGIN SELECT RAISE(ABORT, 'layer_redo rows are only added'); END;

-- The unary plus keeps the planner off the index on `reverses`, which would list all shots that reverse nothing.
CREATE VIEW shot_live AS
  SELECT s.seq, s.id, s.pour_id, s.mold_id, (SELECT max(p.at) FROM shot_part p WHERE p.shot_id = s.id) AS at
  FROM shot s WHERE +s.reverses IS NULL AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id);
CREATE VIEW mark_now AS
  SELECT m.shot_id, s.pour_id, s.mold_id, m.cavity, m.grade, m.reason, max(m.seq) AS seq
  FROM cavity_mark m JOIN shot_live s ON s.id = m.shot_id GROUP BY m.shot_id, m.cavity;
CREATE TRIGGER stock_move_sums AFTER INSERT ON stock_move BEGIN
  INSERT INTO rack_level (pour_id, bait_id, colourway_id, grade, baits, last_shot_at)
    VALUES (NEW.pour_id, NEW.bait_id, NEW.colourway_id, NEW.grade, NEW.baits,
      (SELECT max(s.at) FROM shot_live s WHERE s.pour_id = NEW.pour_id))
    ON CONFLICT (pour_id, bait_id, colourway_id, grade) DO UPDATE SET baits = baits + NEW.baits;
END;

-- Where a bait is of several melts, one cup leads: its molds are drawn from it and from the others.
ALTER TABLE pour ADD COLUMN lead_id TEXT REFERENCES pour (id);
CREATE INDEX pour_by_lead ON pour (lead_id) WHERE lead_id IS NOT NULL;
-- Cups that are laid out for the same evening.
CREATE TABLE evening (
  id TEXT PRIMARY KEY,
  room_c REAL,
  -- 1: somebody put its cups in an order; else light to dark.
  ordered INTEGER NOT NULL DEFAULT 0 CHECK (ordered IN (0, 1)),
  created_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
ALTER TABLE pour ADD COLUMN evening_id TEXT REFERENCES evening (id);
ALTER TABLE pour ADD COLUMN place INTEGER NOT NULL DEFAULT 0;
CREATE INDEX pour_by_evening ON pour (evening_id, place);
-- What the molds of a cup make, and by which revision.
ALTER TABLE pour ADD COLUMN colourway_id TEXT REFERENCES colourway (id);
ALTER TABLE pour ADD COLUMN colourway_revision_id TEXT REFERENCES colourway_revision (id);
UPDATE pour SET colourway_id = recipe_id, colourway_revision_id = recipe_id;
CREATE INDEX pour_by_colourway ON pour (colourway_id, laid_out_at);

-- What is planned for one evening.
ALTER TABLE workshop ADD COLUMN evening_h REAL NOT NULL DEFAULT 3 CHECK (evening_h >= 1);

-- Bins are of a colourway: what is rejected of layered baits is of all their melts.
DROP TRIGGER bin_move_sums;
CREATE TABLE bin_of_colourway (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  hex TEXT NOT NULL,
  -- The colourway that it is kept for; a mixed bin has none.
  colourway_id TEXT UNIQUE REFERENCES colourway (id),
  away_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;
INSERT INTO bin_of_colourway (id, name, hex, colourway_id, away_at, version, created_at)
  SELECT id, name, hex, recipe_id, away_at, version, created_at FROM bin;
DROP TABLE bin;
ALTER TABLE bin_of_colourway RENAME TO bin;

-- What is left of a cup may go straight into another, be kept apart, or be mixed with another into a third colour.
CREATE TABLE cup_part_from_anywhere (
  id TEXT PRIMARY KEY,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  position INTEGER NOT NULL,
  lot_id TEXT REFERENCES lot (id),
  bin_id TEXT REFERENCES bin (id),
  from_pour_id TEXT REFERENCES pour (id),
  share REAL NOT NULL CHECK (share > 0 AND share <= 1),
  UNIQUE (pour_id, position),
  CHECK ((lot_id IS NOT NULL) + (bin_id IS NOT NULL) + (from_pour_id IS NOT NULL) = 1)
) STRICT;
INSERT INTO cup_part_from_anywhere (id, pour_id, position, lot_id, bin_id, share)
  SELECT id, pour_id, position, lot_id, bin_id, share FROM cup_part;
DROP TABLE cup_part;
ALTER TABLE cup_part_from_anywhere RENAME TO cup_part;
CREATE TABLE cup_transfer (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  from_pour_id TEXT NOT NULL REFERENCES pour (id),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  heats INTEGER CHECK (heats >= 0),
  grams REAL NOT NULL CHECK (grams > 0),
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  at TEXT NOT NULL
) STRICT;
CREATE INDEX cup_transfer_by_pour ON cup_transfer (pour_id);
CREATE INDEX cup_transfer_from ON cup_transfer (from_pour_id);
CREATE TRIGGER cup_transfer_no_update BEFORE UPDATE ON cup_transfer BEGIN SELECT RAISE(ABORT, 'cup_transfer rows are only added'); END;
CREATE TRIGGER cup_transfer_no_delete BEFORE DELETE ON cup_transfer BEGIN SELECT RAISE(ABORT, 'cup_transfer rows are only added'); END;
CREATE TABLE bin_move_mixed (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  bin_id TEXT NOT NULL REFERENCES bin (id),
  kind TEXT NOT NULL CHECK (kind IN ('cup', 'given', 'used', 'mixed', 'counted', 'reversed')),
  grams REAL NOT NULL CHECK (grams <> 0),
  heats INTEGER CHECK (heats >= 0),
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  pour_id TEXT REFERENCES pour (id),
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES bin_move (id),
  at TEXT NOT NULL
) STRICT;
INSERT INTO bin_move_mixed (seq, id, bin_id, kind, grams, heats, salt_g, salt_unknown_g, pour_id, note, reverses, at)
  SELECT seq, id, bin_id, kind, grams, heats, salt_g, salt_unknown_g, pour_id, note, reverses, at FROM bin_move;
DROP TABLE bin_move;
ALTER TABLE bin_move_mixed RENAME TO bin_move;
CREATE INDEX bin_move_by_bin ON bin_move (bin_id, seq);
CREATE INDEX bin_move_by_pour ON bin_move (pour_id) WHERE pour_id IS NOT NULL;
CREATE TRIGGER bin_move_no_update BEFORE UPDATE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
CREATE TRIGGER bin_move_no_delete BEFORE DELETE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
CREATE TRIGGER bin_move_sums AFTER INSERT ON bin_move BEGIN
  INSERT INTO bin_level (bin_id, heats, grams, salt_g, salt_unknown_g)
    VALUES (NEW.bin_id, coalesce(NEW.heats, -1), NEW.grams, NEW.salt_g, NEW.salt_unknown_g)
    ON CONFLICT (bin_id, heats) DO UPDATE SET grams = grams + NEW.grams, salt_g = salt_g + NEW.salt_g,
      salt_unknown_g = salt_unknown_g + NEW.salt_unknown_g;
END;

-- A verdict is of a bait so old, in water so cold, out of one pour.
ALTER TABLE water_test ADD COLUMN water_c REAL;
ALTER TABLE water_test ADD COLUMN pour_id TEXT REFERENCES pour (id);
ALTER TABLE water_test ADD COLUMN finish TEXT NOT NULL DEFAULT '';
