-- A layer may go up to a level of the mold: so much of the cavity's height as it stands.
CREATE TABLE colourway_layer_to_a_level (
  id TEXT PRIMARY KEY,
  revision_id TEXT NOT NULL REFERENCES colourway_revision (id),
  position INTEGER NOT NULL,
  place TEXT NOT NULL,
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  measure TEXT NOT NULL CHECK (measure IN ('share', 'ml', 'level', 'rest')),
  amount REAL CHECK (amount > 0),
  -- How it comes to hold on the layer before it; the first joins nothing.
  joins TEXT,
  wanted_scale TEXT CHECK (wanted_scale IN ('A', '00')),
  wanted_hardness REAL,
  UNIQUE (revision_id, position),
  CHECK ((measure = 'rest') = (amount IS NULL)),
  CHECK ((position = 0) = (joins IS NULL))
) STRICT;
INSERT INTO colourway_layer_to_a_level
  SELECT id, revision_id, position, place, recipe_id, measure, amount, joins, wanted_scale, wanted_hardness FROM colourway_layer;
DROP TRIGGER recipe_is_a_colourway;
DROP TABLE colourway_layer;
ALTER TABLE colourway_layer_to_a_level RENAME TO colourway_layer;
CREATE INDEX colourway_layer_by_recipe ON colourway_layer (recipe_id);
CREATE TRIGGER colourway_layer_no_update BEFORE UPDATE ON colourway_layer BEGIN SELECT RAISE(ABORT, 'colourway_layer rows are only added'); END;
CREATE TRIGGER colourway_layer_no_delete BEFORE DELETE ON colourway_layer BEGIN SELECT RAISE(ABORT, 'colourway_layer rows are only added'); END;
CREATE TRIGGER recipe_is_a_colourway AFTER INSERT ON recipe BEGIN
  INSERT INTO colourway (id, recipe_id, created_at) VALUES (NEW.id, NEW.id, NEW.created_at);
  INSERT INTO colourway_revision (id, colourway_id, number, reason, created_at) VALUES (NEW.id, NEW.id, 1, 'one melt', NEW.created_at);
  INSERT INTO colourway_layer (id, revision_id, position, place, recipe_id, measure, amount)
    VALUES (NEW.id, NEW.id, 0, 'whole', NEW.id, 'share', 1);
END;

-- A drop is the bottle's: a new bottle drips another. Null: the material's, else the workshop's.
ALTER TABLE lot ADD COLUMN drops_per_ml REAL CHECK (drops_per_ml > 0);
-- The lot that is taken first; null: the oldest that holds something.
ALTER TABLE material ADD COLUMN lot_id TEXT REFERENCES lot (id);
-- What a drop of it was when it fell; null in what was dosed before: the material's, else the workshop's.
ALTER TABLE dose ADD COLUMN drops_per_ml REAL CHECK (drops_per_ml > 0);
-- The bottle it came out of; null in what was dosed before, and of what no lot is written down.
ALTER TABLE dose ADD COLUMN lot_id TEXT REFERENCES lot (id);
-- Of a liquid: mL of the house strength, whatever bottle they come from.
ALTER TABLE recipe_item ADD COLUMN ml REAL CHECK (ml > 0);
DROP TRIGGER recipe_item_no_update;
UPDATE recipe_item SET ml = iif(unit = 'drop',
    amount / coalesce((SELECT drops_per_ml FROM material WHERE id = material_id), (SELECT drops_per_ml FROM workshop)),
    amount * CASE unit WHEN 'mL' THEN 1 WHEN 'L' THEN 1000 WHEN 'tsp' THEN 4.92892159375 WHEN 'tbsp' THEN 14.78676478125 WHEN 'floz' THEN 29.5735295625
    WHEN 'cup' THEN 236.5882365 WHEN 'qt' THEN 946.352946 WHEN 'gal' THEN 3785.411784 WHEN 'cupMetric' THEN 250
    ELSE (SELECT own.ml FROM measure own WHERE own.name = unit COLLATE BINARY) END)
  WHERE (SELECT kind FROM material WHERE id = material_id) IN ('colourant', 'softener', 'hardener', 'stabilizer', 'oil');
CREATE TRIGGER recipe_item_no_update BEFORE UPDATE ON recipe_item BEGIN SELECT RAISE(ABORT, 'recipe_item rows are only added'); END;

-- A softener or hardener: points of its scale that each percent of the plastisols' mass adds to a cup.
ALTER TABLE material ADD COLUMN points_per_percent REAL;

-- What stayed on glass and felt, and what degassing took, where it was weighed; null: not known, and in what is unaccounted.
CREATE TABLE balance_as_known (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  cooked_g REAL NOT NULL CHECK (cooked_g > 0),
  good_g REAL NOT NULL CHECK (good_g >= 0),
  reject_g REAL NOT NULL CHECK (reject_g >= 0),
  returned_g REAL NOT NULL CHECK (returned_g >= 0),
  residue_g REAL CHECK (residue_g >= 0),
  degassed_g REAL CHECK (degassed_g >= 0),
  at TEXT NOT NULL
) STRICT;
INSERT INTO balance_as_known (seq, id, pour_id, cooked_g, good_g, reject_g, returned_g, residue_g, at)
  SELECT seq, id, pour_id, cooked_g, good_g, reject_g, returned_g, residue_g, at FROM balance;
DROP TABLE balance;
ALTER TABLE balance_as_known RENAME TO balance;
CREATE INDEX balance_by_pour ON balance (pour_id, seq);
CREATE TRIGGER balance_no_update BEFORE UPDATE ON balance BEGIN SELECT RAISE(ABORT, 'balance rows are only added'); END;
CREATE TRIGGER balance_no_delete BEFORE DELETE ON balance BEGIN SELECT RAISE(ABORT, 'balance rows are only added'); END;

-- Two injectors through one block need not be of one size. Null: the second is as large as the first.
ALTER TABLE mold ADD COLUMN second_injector_ml REAL CHECK (second_injector_ml > 0);

-- A cup weighed again, once what was poured over is closed with the other, takes grams back as well as gives them.
CREATE TABLE cup_transfer_either_way (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  from_pour_id TEXT NOT NULL REFERENCES pour (id),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  heats INTEGER CHECK (heats >= 0),
  grams REAL NOT NULL CHECK (grams <> 0),
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  at TEXT NOT NULL
) STRICT;
INSERT INTO cup_transfer_either_way SELECT * FROM cup_transfer;
DROP TABLE cup_transfer;
ALTER TABLE cup_transfer_either_way RENAME TO cup_transfer;
CREATE INDEX cup_transfer_by_pour ON cup_transfer (pour_id);
CREATE INDEX cup_transfer_from ON cup_transfer (from_pour_id);
CREATE TRIGGER cup_transfer_no_update BEFORE UPDATE ON cup_transfer BEGIN SELECT RAISE(ABORT, 'cup_transfer rows are only added'); END;
CREATE TRIGGER cup_transfer_no_delete BEFORE DELETE ON cup_transfer BEGIN SELECT RAISE(ABORT, 'cup_transfer rows are only added'); END;
