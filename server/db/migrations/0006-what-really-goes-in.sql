-- Between good and bad lies a third grade: kept for own water, not sold, not wasted. What was good is to sell, what was
-- bad goes to remelt with its reason.
DROP VIEW mark_now;

CREATE TABLE cavity_mark_graded (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  shot_id TEXT NOT NULL REFERENCES shot (id),
  cavity INTEGER NOT NULL CHECK (cavity >= 1),
  grade TEXT NOT NULL CHECK (grade IN ('sell', 'own', 'remelt', 'unmarked')),
  -- Why it is not to sell; of one that is, what was trimmed off.
  reason TEXT,
  at TEXT NOT NULL
) STRICT;
INSERT INTO cavity_mark_graded (seq, id, shot_id, cavity, grade, reason, at)
  SELECT seq, id, shot_id, cavity, CASE result WHEN 'good' THEN 'sell' WHEN 'bad' THEN 'remelt' ELSE result END, reason, at
  FROM cavity_mark;
DROP TABLE cavity_mark;
ALTER TABLE cavity_mark_graded RENAME TO cavity_mark;
CREATE INDEX cavity_mark_by_shot ON cavity_mark (shot_id, cavity, seq);
CREATE INDEX shot_mark_grades ON cavity_mark (shot_id, grade);
CREATE TRIGGER cavity_mark_no_update BEFORE UPDATE ON cavity_mark BEGIN SELECT RAISE(ABORT, 'cavity_mark rows are only added'); END;
CREATE TRIGGER cavity_mark_no_delete BEFORE DELETE ON cavity_mark BEGIN SELECT RAISE(ABORT, 'cavity_mark rows are only added'); END;

CREATE VIEW mark_now AS
  SELECT m.shot_id, s.pour_id, s.mold_id, m.cavity, m.grade, m.reason, max(m.seq) AS seq
  FROM cavity_mark m JOIN shot_live s ON s.id = m.shot_id GROUP BY m.shot_id, m.cavity;

-- What closed cups came to, by mold and by cavity.
DROP TRIGGER pour_mold_sums;
ALTER TABLE pour_mold RENAME COLUMN good TO sell;
ALTER TABLE pour_mold RENAME COLUMN bad TO remelt;
ALTER TABLE pour_mold ADD COLUMN own INTEGER;
UPDATE pour_mold SET own = 0 WHERE drawn IS NOT NULL;
ALTER TABLE mold_sum RENAME COLUMN good TO sell;
ALTER TABLE mold_sum RENAME COLUMN bad TO remelt;
ALTER TABLE mold_sum ADD COLUMN own INTEGER NOT NULL DEFAULT 0;
CREATE TRIGGER pour_mold_sums AFTER UPDATE OF drawn ON pour_mold WHEN OLD.drawn IS NULL AND NEW.drawn IS NOT NULL BEGIN
  INSERT INTO mold_sum (mold_id, drawn, sell, own, remelt) VALUES (NEW.mold_id, NEW.drawn, NEW.sell, NEW.own, NEW.remelt)
    ON CONFLICT (mold_id) DO UPDATE SET drawn = drawn + NEW.drawn, sell = sell + NEW.sell, own = own + NEW.own,
      remelt = remelt + NEW.remelt;
END;
CREATE TABLE cavity_sum_graded (
  mold_id TEXT NOT NULL REFERENCES mold (id),
  cavity INTEGER NOT NULL,
  grade TEXT NOT NULL CHECK (grade IN ('sell', 'own', 'remelt')),
  reason TEXT NOT NULL,
  count INTEGER NOT NULL,
  PRIMARY KEY (mold_id, cavity, grade, reason)
) STRICT, WITHOUT ROWID;
INSERT INTO cavity_sum_graded SELECT mold_id, cavity, iif(result = 'good', 'sell', 'remelt'), reason, count FROM cavity_sum;
DROP TABLE cavity_sum;
ALTER TABLE cavity_sum_graded RENAME TO cavity_sum;

-- Own water lies on the rack beside what is to sell, and is never offered to an order.
DROP TRIGGER stock_move_sums;
ALTER TABLE stock_move ADD COLUMN grade TEXT NOT NULL DEFAULT 'sell' CHECK (grade IN ('sell', 'own'));
CREATE TABLE rack_level_graded (
  pour_id TEXT NOT NULL REFERENCES pour (id),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  grade TEXT NOT NULL CHECK (grade IN ('sell', 'own')),
  baits INTEGER NOT NULL,
  last_shot_at TEXT,
  PRIMARY KEY (pour_id, bait_id, recipe_id, grade)
) STRICT, WITHOUT ROWID;
INSERT INTO rack_level_graded SELECT pour_id, bait_id, recipe_id, 'sell', baits, last_shot_at FROM rack_level;
DROP TABLE rack_level;
ALTER TABLE rack_level_graded RENAME TO rack_level;
CREATE INDEX rack_level_there ON rack_level (recipe_id, bait_id) WHERE baits <> 0;
CREATE TRIGGER stock_move_sums AFTER INSERT ON stock_move BEGIN
  INSERT INTO rack_level (pour_id, bait_id, recipe_id, grade, baits, last_shot_at)
    VALUES (NEW.pour_id, NEW.bait_id, NEW.recipe_id, NEW.grade, NEW.baits,
      (SELECT max(s.at) FROM shot s WHERE s.pour_id = NEW.pour_id AND +s.reverses IS NULL
        AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id)))
    ON CONFLICT (pour_id, bait_id, recipe_id, grade) DO UPDATE SET baits = baits + NEW.baits;
END;

-- A ladder can be called otherwise and put away; what was tried on it stays as it is.
ALTER TABLE ladder ADD COLUMN away_at TEXT;
ALTER TABLE ladder ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
DROP TRIGGER ladder_no_update;
DROP TRIGGER ladder_no_delete;

-- Remelt bins are this workshop's own: what lies in them is told by how often it was cooked (NULL: nobody knows), with
-- the grams of salt in it and the grams of which that is not known.
CREATE TABLE bin (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  hex TEXT NOT NULL,
  -- The colour that it is kept for; a mixed bin has none.
  recipe_id TEXT UNIQUE REFERENCES recipe (id),
  away_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;
CREATE TABLE bin_move (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  bin_id TEXT NOT NULL REFERENCES bin (id),
  kind TEXT NOT NULL CHECK (kind IN ('cup', 'given', 'used', 'counted', 'reversed')),
  grams REAL NOT NULL CHECK (grams <> 0),
  heats INTEGER CHECK (heats >= 0),
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  pour_id TEXT REFERENCES pour (id),
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES bin_move (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX bin_move_by_bin ON bin_move (bin_id, seq);
CREATE INDEX bin_move_by_pour ON bin_move (pour_id) WHERE pour_id IS NOT NULL;
CREATE TRIGGER bin_move_no_update BEFORE UPDATE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
CREATE TRIGGER bin_move_no_delete BEFORE DELETE ON bin_move BEGIN SELECT RAISE(ABORT, 'bin_move rows are only added'); END;
-- −1 stands for heats that nobody knows.
CREATE TABLE bin_level (
  bin_id TEXT NOT NULL REFERENCES bin (id),
  heats INTEGER NOT NULL,
  grams REAL NOT NULL,
  salt_g REAL NOT NULL,
  salt_unknown_g REAL NOT NULL,
  PRIMARY KEY (bin_id, heats)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER bin_move_sums AFTER INSERT ON bin_move BEGIN
  INSERT INTO bin_level (bin_id, heats, grams, salt_g, salt_unknown_g)
    VALUES (NEW.bin_id, coalesce(NEW.heats, -1), NEW.grams, NEW.salt_g, NEW.salt_unknown_g)
    ON CONFLICT (bin_id, heats) DO UPDATE SET grams = grams + NEW.grams, salt_g = salt_g + NEW.salt_g,
      salt_unknown_g = salt_unknown_g + NEW.salt_unknown_g;
END;
-- The bin of a colour goes by the colour's own id; what is in it was cooked once where its cup's cooking was noted.
INSERT INTO bin (id, name, hex, recipe_id, created_at)
  SELECT id, name, hex, id, created_at FROM recipe WHERE id IN (SELECT recipe_id FROM remelt_move);
INSERT INTO bin_move (seq, id, bin_id, kind, grams, heats, salt_g, salt_unknown_g, pour_id, note, at)
  SELECT m.seq, m.id, m.recipe_id, iif(m.pour_id IS NULL, 'counted', 'cup'), m.grams,
    iif(EXISTS (SELECT 1 FROM heat h WHERE h.pour_id = m.pour_id AND h.kind = 'cook' AND h.reverses IS NULL
      AND NOT EXISTS (SELECT 1 FROM heat u WHERE u.reverses = h.id)), 1, NULL),
    0, m.grams, m.pour_id, m.note, m.at
  FROM remelt_move m ORDER BY m.seq;
DROP TABLE remelt_level;
DROP TABLE remelt_move;

-- What a cup's plastic is made of: lots and remelt, as planned, and as weighed in.
CREATE TABLE cup_part (
  id TEXT PRIMARY KEY,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  position INTEGER NOT NULL,
  lot_id TEXT REFERENCES lot (id),
  bin_id TEXT REFERENCES bin (id),
  share REAL NOT NULL CHECK (share > 0 AND share <= 1),
  UNIQUE (pour_id, position),
  CHECK ((lot_id IS NULL) <> (bin_id IS NULL))
) STRICT;
CREATE TABLE part_weighing (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  part_id TEXT NOT NULL REFERENCES cup_part (id),
  grams REAL NOT NULL CHECK (grams > 0),
  reverses TEXT UNIQUE REFERENCES part_weighing (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX part_weighing_by_part ON part_weighing (part_id, seq);
CREATE TRIGGER part_weighing_no_update BEFORE UPDATE ON part_weighing BEGIN SELECT RAISE(ABORT, 'part_weighing rows are only added'); END;
CREATE TRIGGER part_weighing_no_delete BEFORE DELETE ON part_weighing BEGIN SELECT RAISE(ABORT, 'part_weighing rows are only added'); END;
INSERT INTO cup_part (id, pour_id, position, lot_id, share)
  SELECT id, id, 0, plastisol_lot_id, 1 FROM pour WHERE plastisol_lot_id IS NOT NULL;
ALTER TABLE pour DROP COLUMN plastisol_lot_id;
ALTER TABLE pour DROP COLUMN plastisol_id;

-- Remelt that was cooked more often than this is warned of.
ALTER TABLE workshop ADD COLUMN remelt_heats INTEGER NOT NULL DEFAULT 5 CHECK (remelt_heats > 0);

-- What a lot held when it came is asked for with every list of the store: not by way of all that was ever taken out of it.
CREATE INDEX lot_move_received ON lot_move (lot_id, grams) WHERE kind = 'received';
