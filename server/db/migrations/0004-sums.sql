-- Ten years of evenings: no screen's request may scan what grows. Levels are sums that are kept as their rows are added, and
-- what a closed cup came to is summed when it is closed.

-- What lies in each lot.
CREATE TABLE lot_level (
  lot_id TEXT PRIMARY KEY REFERENCES lot (id),
  material_id TEXT NOT NULL REFERENCES material (id),
  grams REAL NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO lot_level (lot_id, material_id, grams)
  SELECT lot.id, lot.material_id, sum(m.grams) FROM lot JOIN lot_move m ON m.lot_id = lot.id GROUP BY lot.id;
CREATE INDEX lot_level_by_material ON lot_level (material_id, grams);
CREATE TRIGGER lot_move_sums AFTER INSERT ON lot_move BEGIN
  INSERT INTO lot_level (lot_id, material_id, grams)
    VALUES (NEW.lot_id, (SELECT material_id FROM lot WHERE id = NEW.lot_id), NEW.grams)
    ON CONFLICT (lot_id) DO UPDATE SET grams = grams + NEW.grams;
END;
CREATE INDEX lot_move_by_pour ON lot_move (pour_id) WHERE pour_id IS NOT NULL;
CREATE INDEX lot_by_material ON lot (material_id, created_at, id);

-- What lies in each remelt bin.
CREATE TABLE remelt_level (
  recipe_id TEXT PRIMARY KEY REFERENCES recipe (id),
  grams REAL NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO remelt_level (recipe_id, grams) SELECT recipe_id, sum(grams) FROM remelt_move GROUP BY recipe_id;
CREATE TRIGGER remelt_move_sums AFTER INSERT ON remelt_move BEGIN
  INSERT INTO remelt_level (recipe_id, grams) VALUES (NEW.recipe_id, NEW.grams)
    ON CONFLICT (recipe_id) DO UPDATE SET grams = grams + NEW.grams;
END;
CREATE INDEX remelt_move_by_recipe ON remelt_move (recipe_id);

-- What lies on the rack, by the pour it came from; a closed cup's last shot never changes.
CREATE TABLE rack_level (
  pour_id TEXT NOT NULL REFERENCES pour (id),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  baits INTEGER NOT NULL,
  last_shot_at TEXT,
  PRIMARY KEY (pour_id, bait_id, recipe_id)
) STRICT, WITHOUT ROWID;
INSERT INTO rack_level (pour_id, bait_id, recipe_id, baits, last_shot_at)
  SELECT k.pour_id, k.bait_id, k.recipe_id, sum(k.baits),
    (SELECT max(s.at) FROM shot s WHERE s.pour_id = k.pour_id AND +s.reverses IS NULL
      AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id))
  FROM stock_move k GROUP BY k.pour_id, k.bait_id, k.recipe_id;
CREATE INDEX rack_level_there ON rack_level (recipe_id, bait_id) WHERE baits <> 0;
CREATE TRIGGER stock_move_sums AFTER INSERT ON stock_move BEGIN
  INSERT INTO rack_level (pour_id, bait_id, recipe_id, baits, last_shot_at)
    VALUES (NEW.pour_id, NEW.bait_id, NEW.recipe_id, NEW.baits,
      (SELECT max(s.at) FROM shot s WHERE s.pour_id = NEW.pour_id AND +s.reverses IS NULL
        AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id)))
    ON CONFLICT (pour_id, bait_id, recipe_id) DO UPDATE SET baits = baits + NEW.baits;
END;
DROP VIEW rack;
CREATE VIEW rack AS
  SELECT bait_id, recipe_id, pour_id, baits, strftime('%Y-%m-%dT%H:%M:%fZ', last_shot_at, '+24 hours') AS cured_at
  FROM rack_level WHERE baits <> 0;
CREATE INDEX stock_move_left ON stock_move (seq) WHERE kind IN ('fished', 'given', 'scrapped');

-- The unary plus keeps the planner off the index on `reverses`, which would list all shots that reverse nothing.
DROP VIEW mark_now;
DROP VIEW shot_live;
CREATE VIEW shot_live AS
  SELECT s.* FROM shot s WHERE +s.reverses IS NULL AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id);
CREATE VIEW mark_now AS
  SELECT m.shot_id, s.pour_id, s.mold_id, m.cavity, m.result, m.reason, max(m.seq) AS seq
  FROM cavity_mark m JOIN shot_live s ON s.id = m.shot_id GROUP BY m.shot_id, m.cavity;
DROP INDEX shot_by_mold;
CREATE INDEX shot_by_mold ON shot (mold_id, at, reverses);

-- What each mold has made in closed cups, and each of its cavities; 'none' is the reason of a good one.
CREATE TABLE mold_sum (
  mold_id TEXT PRIMARY KEY REFERENCES mold (id),
  drawn INTEGER NOT NULL,
  good INTEGER NOT NULL,
  bad INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO mold_sum (mold_id, drawn, good, bad)
  SELECT mold_id, sum(drawn), sum(good), sum(bad) FROM pour_mold WHERE drawn IS NOT NULL GROUP BY mold_id;
CREATE TRIGGER pour_mold_sums AFTER UPDATE OF drawn ON pour_mold WHEN OLD.drawn IS NULL AND NEW.drawn IS NOT NULL BEGIN
  INSERT INTO mold_sum (mold_id, drawn, good, bad) VALUES (NEW.mold_id, NEW.drawn, NEW.good, NEW.bad)
    ON CONFLICT (mold_id) DO UPDATE SET drawn = drawn + NEW.drawn, good = good + NEW.good, bad = bad + NEW.bad;
END;
CREATE TABLE cavity_sum (
  mold_id TEXT NOT NULL REFERENCES mold (id),
  cavity INTEGER NOT NULL,
  result TEXT NOT NULL CHECK (result IN ('good', 'bad')),
  reason TEXT NOT NULL,
  count INTEGER NOT NULL,
  PRIMARY KEY (mold_id, cavity, result, reason)
) STRICT, WITHOUT ROWID;
INSERT INTO cavity_sum (mold_id, cavity, result, reason, count)
  SELECT n.mold_id, n.cavity, n.result, coalesce(n.reason, 'none'), count(*)
  FROM mark_now n JOIN pour ON pour.id = n.pour_id
  WHERE pour.closed_at IS NOT NULL AND n.result <> 'unmarked' GROUP BY 1, 2, 3, 4;

-- Ledgers of cups are many; those that are no cup's are listed.
ALTER TABLE ledger ADD COLUMN of_pour INTEGER NOT NULL DEFAULT 0 CHECK (of_pour IN (0, 1));
UPDATE ledger SET of_pour = 1 WHERE id IN (SELECT ledger_id FROM pour);
CREATE INDEX ledger_alone ON ledger (created_at, id) WHERE of_pour = 0;

-- How many of a mold's baits of a closed cup had flash.
ALTER TABLE pour_mold ADD COLUMN flash INTEGER;
UPDATE pour_mold SET flash = (SELECT count(*) FROM mark_now n WHERE n.pour_id = pour_mold.pour_id
  AND n.mold_id = pour_mold.mold_id AND n.result = 'bad' AND n.reason = 'flash') WHERE drawn IS NOT NULL;

CREATE INDEX pour_order_line_by_line ON pour_order_line (order_line_id);
CREATE INDEX customer_order_by_customer ON customer_order (customer_id, due_on);
CREATE INDEX kept_result_by_time ON kept_result (created_at, id);
CREATE INDEX customer_order_by_due ON customer_order (due_on, id);
CREATE INDEX customer_order_open ON customer_order (due_on, created_at) WHERE sent_at IS NULL AND cancelled_at IS NULL;
DROP INDEX pour_by_recipe;
CREATE INDEX pour_by_recipe ON pour (recipe_id, laid_out_at);
CREATE INDEX pour_by_closing ON pour (closed_at);
CREATE INDEX pour_by_code ON pour (code COLLATE NOCASE);
CREATE INDEX order_by_code ON customer_order (code COLLATE NOCASE);
CREATE INDEX bag_by_code ON bag (code COLLATE NOCASE);
CREATE INDEX mold_by_bait ON mold (bait_id);
CREATE INDEX idempotency_by_age ON idempotency (at);
CREATE INDEX photo_by_hash ON photo (hash);
