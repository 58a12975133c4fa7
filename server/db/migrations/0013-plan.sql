-- Hands: minutes of each maker by the day of the week, Monday 1 to Sunday 7; who has none here works the workshop's usual evening.
CREATE TABLE work_hours (
  maker_id TEXT NOT NULL REFERENCES maker (id),
  weekday INTEGER NOT NULL CHECK (weekday BETWEEN 1 AND 7),
  minutes REAL NOT NULL CHECK (minutes BETWEEN 0 AND 1440),
  PRIMARY KEY (maker_id, weekday)
) STRICT, WITHOUT ROWID;

-- A day on which a maker is not there; without a maker, nobody is.
CREATE TABLE day_off (
  id TEXT PRIMARY KEY,
  day TEXT NOT NULL,
  maker_id TEXT REFERENCES maker (id),
  ended_at TEXT,
  created_at TEXT NOT NULL
) STRICT;
CREATE INDEX day_off_by_day ON day_off (day) WHERE ended_at IS NULL;

-- A colour that was put on an evening by hand, or taken off it.
CREATE TABLE plan_pin (
  id TEXT PRIMARY KEY,
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  day TEXT NOT NULL,
  pours INTEGER NOT NULL CHECK (pours IN (0, 1)),
  ended_at TEXT,
  created_at TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX plan_pin_once ON plan_pin (colourway_id, day) WHERE ended_at IS NULL;

-- Glasses that an evening has, and how long a bag takes to count, oil, scent and label.
ALTER TABLE workshop ADD COLUMN glasses INTEGER NOT NULL DEFAULT 6 CHECK (glasses > 0);
ALTER TABLE workshop ADD COLUMN pack_s REAL NOT NULL DEFAULT 45 CHECK (pack_s >= 0);

-- What was changed on an order's lines after it was taken: shared out, put on a back-order, another colour, more or fewer packs.
CREATE TABLE line_change (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  order_id TEXT NOT NULL REFERENCES customer_order (id),
  order_line_id TEXT NOT NULL REFERENCES order_line (id),
  what TEXT NOT NULL CHECK (what IN ('packs', 'per-pack', 'colour', 'back-order', 'added', 'taken')),
  was TEXT NOT NULL,
  now TEXT NOT NULL,
  why TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;
CREATE INDEX line_change_by_order ON line_change (order_id, seq);
CREATE TRIGGER line_change_no_update BEFORE UPDATE ON line_change BEGIN SELECT RAISE(ABORT, 'line_change rows are only added'); END;
CREATE TRIGGER line_change_no_delete BEFORE DELETE ON line_change BEGIN SELECT RAISE(ABORT, 'line_change rows are only added'); END;

-- What a pack costs whom: a list's share of a bait's price, rounded to so much; tax as a plain percentage, if there is any.
ALTER TABLE customer ADD COLUMN price_list TEXT NOT NULL DEFAULT 'private' CHECK (price_list IN ('private', 'club', 'shop'));
-- Two records of one customer: its orders went to the other.
ALTER TABLE customer ADD COLUMN merged_into_id TEXT REFERENCES customer (id);
ALTER TABLE workshop ADD COLUMN club_fraction REAL NOT NULL DEFAULT 1 CHECK (club_fraction BETWEEN 0 AND 2);
ALTER TABLE workshop ADD COLUMN shop_fraction REAL NOT NULL DEFAULT 1 CHECK (shop_fraction BETWEEN 0 AND 2);
ALTER TABLE workshop ADD COLUMN round_minor INTEGER NOT NULL DEFAULT 1 CHECK (round_minor > 0);
ALTER TABLE workshop ADD COLUMN tax_fraction REAL NOT NULL DEFAULT 0 CHECK (tax_fraction BETWEEN 0 AND 1);
-- What a lot was bought for, where it was another price than the material's.
ALTER TABLE lot ADD COLUMN price_per_kg_minor INTEGER CHECK (price_per_kg_minor >= 0);

-- A file of orders that was read in: what of it nobody could match stays here, word for word.
CREATE TABLE order_import (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  left_over TEXT NOT NULL DEFAULT '[]',
  taken_back_at TEXT,
  at TEXT NOT NULL
) STRICT;
ALTER TABLE customer_order ADD COLUMN import_id TEXT REFERENCES order_import (id);
CREATE INDEX customer_order_by_import ON customer_order (import_id) WHERE import_id IS NOT NULL;
-- Given away or swapped: nobody pays for it, and it stands at its cost.
ALTER TABLE customer_order ADD COLUMN gift INTEGER NOT NULL DEFAULT 0 CHECK (gift IN (0, 1));

-- What somebody found wrong with baits of a bag, noted against the cup and the mold they came from.
CREATE TABLE complaint (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  bag_id TEXT NOT NULL REFERENCES bag (id),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  mold_id TEXT NOT NULL REFERENCES mold (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  reason TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES complaint (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX complaint_by_bag ON complaint (bag_id);
CREATE INDEX complaint_by_mold ON complaint (mold_id);
CREATE INDEX complaint_by_pour ON complaint (pour_id);
CREATE TRIGGER complaint_no_update BEFORE UPDATE ON complaint BEGIN SELECT RAISE(ABORT, 'complaint rows are only added'); END;
CREATE TRIGGER complaint_no_delete BEFORE DELETE ON complaint BEGIN SELECT RAISE(ABORT, 'complaint rows are only added'); END;
-- The bag that an order makes good again.
ALTER TABLE customer_order ADD COLUMN remakes_bag_id TEXT REFERENCES bag (id);

-- What leaves the store with each bag beside the bag itself: a label, oil, scent.
CREATE TABLE pack_with (
  material_id TEXT PRIMARY KEY REFERENCES material (id),
  amount REAL NOT NULL CHECK (amount > 0)
) STRICT, WITHOUT ROWID;

-- What a filled bag weighed without its bag, so that half a bait is found.
CREATE TABLE bag_weighing (
  bag_id TEXT PRIMARY KEY REFERENCES bag (id),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  grams REAL NOT NULL CHECK (grams > 0),
  instrument_id TEXT REFERENCES instrument (id),
  at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX bag_weighing_of ON bag_weighing (bait_id, colourway_id, at);
CREATE TRIGGER bag_weighing_no_update BEFORE UPDATE ON bag_weighing BEGIN SELECT RAISE(ABORT, 'bag_weighing rows are only added'); END;
CREATE TRIGGER bag_weighing_no_delete BEFORE DELETE ON bag_weighing BEGIN SELECT RAISE(ABORT, 'bag_weighing rows are only added'); END;

-- Baits that are to lie on the rack beyond what is ordered, by a day.
CREATE TABLE stock_wish (
  id TEXT PRIMARY KEY,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  colourway_id TEXT NOT NULL REFERENCES colourway (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  due_on TEXT NOT NULL,
  ended_at TEXT,
  created_at TEXT NOT NULL
) STRICT;
CREATE INDEX stock_wish_open ON stock_wish (due_on) WHERE ended_at IS NULL;
-- A line that was taken out of its order stays, with what was done for it; nobody wants it any more.
ALTER TABLE order_line ADD COLUMN taken_at TEXT;
CREATE INDEX order_line_of ON order_line (colourway_id, bait_id);

-- A scale at the packing table.
ALTER TABLE instrument ADD COLUMN order_id TEXT REFERENCES customer_order (id);
CREATE INDEX lot_move_by_bag ON lot_move (bag_id) WHERE bag_id IS NOT NULL;

-- Eyes, paint, a clip: hands a bait takes after it cured, and how long it then dries.
ALTER TABLE bait ADD COLUMN finish_s REAL NOT NULL DEFAULT 0 CHECK (finish_s >= 0);
ALTER TABLE bait ADD COLUMN dry_h REAL NOT NULL DEFAULT 0 CHECK (dry_h >= 0);

-- Lines of an order with the same name here go into one bag: several colours, a set.
ALTER TABLE order_line ADD COLUMN set_name TEXT;
-- The further lines of such a bag; the first is the bag's own.
CREATE TABLE bag_line (
  order_line_id TEXT NOT NULL REFERENCES order_line (id),
  bag_id TEXT NOT NULL REFERENCES bag (id),
  PRIMARY KEY (order_line_id, bag_id)
) STRICT, WITHOUT ROWID;
