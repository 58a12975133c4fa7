-- A cup's colour as it was really seen, beside what was foreseen of it then.
CREATE TABLE colour_look (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  ledger_id TEXT NOT NULL REFERENCES ledger (id),
  -- The newest dose that was in it; 0: none.
  dose_seq INTEGER NOT NULL,
  how TEXT NOT NULL CHECK (how IN ('typed', 'photo')),
  thickness_mm REAL NOT NULL CHECK (thickness_mm > 0),
  -- Reflectance, over white paper.
  reflected TEXT NOT NULL,
  -- The melt as it was foreseen without what looks had taught: K and S a mm, and what of K each colourant is.
  foreseen TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES colour_look (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX colour_look_by_ledger ON colour_look (ledger_id, seq);
CREATE TRIGGER colour_look_no_update BEFORE UPDATE ON colour_look BEGIN SELECT RAISE(ABORT, 'colour_look rows are only added'); END;
CREATE TRIGGER colour_look_no_delete BEFORE DELETE ON colour_look BEGIN SELECT RAISE(ABORT, 'colour_look rows are only added'); END;

-- A puck cooked of what is in a bin: weighed, sunk, pressed and looked at; what was typed, and what it came to.
CREATE TABLE bin_puck (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  bin_id TEXT NOT NULL REFERENCES bin (id),
  input TEXT NOT NULL,
  output TEXT NOT NULL,
  reverses TEXT UNIQUE REFERENCES bin_puck (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX bin_puck_by_bin ON bin_puck (bin_id, seq);
CREATE TRIGGER bin_puck_no_update BEFORE UPDATE ON bin_puck BEGIN SELECT RAISE(ABORT, 'bin_puck rows are only added'); END;
CREATE TRIGGER bin_puck_no_delete BEFORE DELETE ON bin_puck BEGIN SELECT RAISE(ABORT, 'bin_puck rows are only added'); END;

-- Remelt carries its colour: grams whose colour is known, and K and S of them, each times its grams, so that they add up.
CREATE TABLE bin_move_coloured (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  bin_id TEXT NOT NULL REFERENCES bin (id),
  kind TEXT NOT NULL CHECK (kind IN ('cup', 'given', 'used', 'mixed', 'counted', 'puck', 'reversed')),
  grams REAL NOT NULL,
  heats INTEGER CHECK (heats >= 0),
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  colour_g REAL NOT NULL DEFAULT 0,
  k_r REAL NOT NULL DEFAULT 0,
  k_g REAL NOT NULL DEFAULT 0,
  k_b REAL NOT NULL DEFAULT 0,
  s_r REAL NOT NULL DEFAULT 0,
  s_g REAL NOT NULL DEFAULT 0,
  s_b REAL NOT NULL DEFAULT 0,
  -- What this row tells was read off that puck; it moves no grams.
  puck_id TEXT REFERENCES bin_puck (id),
  pour_id TEXT REFERENCES pour (id),
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES bin_move (id),
  at TEXT NOT NULL,
  CHECK ((grams <> 0) = (puck_id IS NULL))
) STRICT;
INSERT INTO bin_move_coloured (seq, id, bin_id, kind, grams, heats, salt_g, salt_unknown_g, pour_id, note, reverses, at)
  SELECT seq, id, bin_id, kind, grams, heats, salt_g, salt_unknown_g, pour_id, note, reverses, at FROM bin_move;
DROP TABLE bin_move;
ALTER TABLE bin_move_coloured RENAME TO bin_move;
CREATE INDEX bin_move_by_bin ON bin_move (bin_id, seq);
CREATE INDEX bin_move_by_pour ON bin_move (pour_id) WHERE pour_id IS NOT NULL;
CREATE INDEX bin_move_by_puck ON bin_move (puck_id) WHERE puck_id IS NOT NULL;
CREATE TRIGGER bin_move_no_update BEFORE UPDATE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
CREATE TRIGGER bin_move_no_delete BEFORE DELETE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
ALTER TABLE bin_level ADD COLUMN colour_g REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN k_r REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN k_g REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN k_b REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN s_r REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN s_g REAL NOT NULL DEFAULT 0;
ALTER TABLE bin_level ADD COLUMN s_b REAL NOT NULL DEFAULT 0;
CREATE TRIGGER bin_move_sums AFTER INSERT ON bin_move BEGIN
  INSERT INTO bin_level (bin_id, heats, grams, salt_g, salt_unknown_g, colour_g, k_r, k_g, k_b, s_r, s_g, s_b)
    VALUES (NEW.bin_id, coalesce(NEW.heats, -1), NEW.grams, NEW.salt_g, NEW.salt_unknown_g, NEW.colour_g,
      NEW.k_r, NEW.k_g, NEW.k_b, NEW.s_r, NEW.s_g, NEW.s_b)
    ON CONFLICT (bin_id, heats) DO UPDATE SET grams = grams + NEW.grams, salt_g = salt_g + NEW.salt_g,
      salt_unknown_g = salt_unknown_g + NEW.salt_unknown_g, colour_g = colour_g + NEW.colour_g,
      k_r = k_r + NEW.k_r, k_g = k_g + NEW.k_g, k_b = k_b + NEW.k_b,
      s_r = s_r + NEW.s_r, s_g = s_g + NEW.s_g, s_b = s_b + NEW.s_b;
END;
ALTER TABLE cup_transfer ADD COLUMN colour_g REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN k_r REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN k_g REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN k_b REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN s_r REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN s_g REAL NOT NULL DEFAULT 0;
ALTER TABLE cup_transfer ADD COLUMN s_b REAL NOT NULL DEFAULT 0;

-- A cup was stirred: from then on flake and salt sink again.
CREATE TABLE stir (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  reverses TEXT UNIQUE REFERENCES stir (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX stir_by_pour ON stir (pour_id, seq);
CREATE TRIGGER stir_no_update BEFORE UPDATE ON stir BEGIN SELECT RAISE(ABORT, 'stir rows are only added'); END;
CREATE TRIGGER stir_no_delete BEFORE DELETE ON stir BEGIN SELECT RAISE(ABORT, 'stir rows are only added'); END;

-- A burst in the oven, as it was begun: read before and after, bursts teach how much of its power reaches a cup.
CREATE TABLE burst (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  watts REAL NOT NULL CHECK (watts > 0),
  -- Of full power.
  level REAL NOT NULL CHECK (level > 0 AND level <= 1),
  seconds REAL NOT NULL CHECK (seconds > 0),
  mass_g REAL NOT NULL CHECK (mass_g > 0),
  reverses TEXT UNIQUE REFERENCES burst (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX burst_by_pour ON burst (pour_id, seq);
CREATE TRIGGER burst_no_update BEFORE UPDATE ON burst BEGIN SELECT RAISE(ABORT, 'burst rows are only added'); END;
CREATE TRIGGER burst_no_delete BEFORE DELETE ON burst BEGIN SELECT RAISE(ABORT, 'burst rows are only added'); END;

-- Of any colour, of one melt or of several: what it belongs with, and whether it is one of those that are always wanted.
ALTER TABLE colourway ADD COLUMN family TEXT NOT NULL DEFAULT '';
ALTER TABLE colourway ADD COLUMN favourite INTEGER NOT NULL DEFAULT 0 CHECK (favourite IN (0, 1));

-- Flake that turns in the heat: what it turns into, and whether this recipe wants it turned.
ALTER TABLE material ADD COLUMN turns_hex TEXT;
ALTER TABLE recipe_item ADD COLUMN turned INTEGER NOT NULL DEFAULT 0 CHECK (turned IN (0, 1));

-- How this workshop adds: colour into the cold liquid or once it is cooked, salt with the colour or last.
ALTER TABLE workshop ADD COLUMN colour_when TEXT NOT NULL DEFAULT 'cooked' CHECK (colour_when IN ('cold', 'cooked'));
-- What this workshop's oven gives, and how it cooks.
ALTER TABLE workshop ADD COLUMN oven_watts REAL NOT NULL DEFAULT 900 CHECK (oven_watts > 0);
ALTER TABLE workshop ADD COLUMN cook_school TEXT NOT NULL DEFAULT 'full-power' CHECK (cook_school IN ('full-power', 'gentle'));
ALTER TABLE workshop ADD COLUMN salt_when TEXT NOT NULL DEFAULT 'last' CHECK (salt_when IN ('colour', 'last'));

-- Ordered by a theme and no colour: what was proposed, which of it was chosen, and the line of the order that came of it.
CREATE TABLE taste_wish (
  id TEXT PRIMARY KEY,
  order_id TEXT NOT NULL REFERENCES customer_order (id),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  theme TEXT NOT NULL,
  packs INTEGER NOT NULL CHECK (packs > 0),
  per_pack INTEGER NOT NULL CHECK (per_pack > 0),
  proposals TEXT NOT NULL,
  order_line_id TEXT REFERENCES order_line (id),
  away_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;
CREATE INDEX taste_wish_by_order ON taste_wish (order_id);
