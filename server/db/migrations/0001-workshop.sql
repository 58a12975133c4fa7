-- The workshop, its makers and their own measures.
CREATE TABLE workshop (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  name TEXT NOT NULL,
  currency TEXT NOT NULL CHECK (length(currency) = 3),
  room_c REAL NOT NULL,
  glass_ml REAL NOT NULL CHECK (glass_ml > 0),
  drops_per_ml REAL NOT NULL CHECK (drops_per_ml > 0),
  version INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE TABLE maker (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  system TEXT NOT NULL CHECK (system IN ('metric', 'us')),
  temperature TEXT NOT NULL CHECK (temperature IN ('C', 'F')),
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE measure (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  count INTEGER NOT NULL CHECK (count > 0),
  grams REAL NOT NULL CHECK (grams > 0),
  density_g_per_ml REAL NOT NULL CHECK (density_g_per_ml > 0),
  ml REAL NOT NULL CHECK (ml > 0),
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

-- What is made: a bait goes by one name through masters, molds, pours and orders.
CREATE TABLE bait (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  shape TEXT NOT NULL,
  pack_count INTEGER NOT NULL CHECK (pack_count > 0),
  price_minor INTEGER CHECK (price_minor >= 0),
  wanted_scale TEXT CHECK (wanted_scale IN ('A', '00')),
  wanted_hardness REAL,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE master (
  id TEXT PRIMARY KEY,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  kind TEXT NOT NULL,
  flat_back INTEGER NOT NULL CHECK (flat_back IN (0, 1)),
  notes TEXT NOT NULL DEFAULT '',
  survived TEXT NOT NULL DEFAULT 'yes' CHECK (survived IN ('yes', 'mended', 'lost')),
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

-- A saved shape never changes; the next revision says what did. Two parents: an old tail on a new body.
CREATE TABLE master_revision (
  id TEXT PRIMARY KEY,
  master_id TEXT NOT NULL REFERENCES master (id),
  number INTEGER NOT NULL CHECK (number > 0),
  reason TEXT NOT NULL,
  parent_id TEXT REFERENCES master_revision (id),
  second_parent_id TEXT REFERENCES master_revision (id),
  length_mm REAL NOT NULL CHECK (length_mm > 0),
  width_mm REAL NOT NULL CHECK (width_mm > 0),
  height_mm REAL NOT NULL CHECK (height_mm > 0),
  thickest_mm REAL NOT NULL CHECK (thickest_mm > 0),
  created_at TEXT NOT NULL,
  UNIQUE (master_id, number)
) STRICT;

CREATE TABLE volume_reading (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  revision_id TEXT NOT NULL REFERENCES master_revision (id),
  how TEXT NOT NULL CHECK (how IN ('weighed', 'displaced')),
  grams REAL,
  density_g_per_ml REAL,
  ml REAL NOT NULL CHECK (ml > 0),
  at TEXT NOT NULL
) STRICT;

CREATE TABLE mold (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  kind TEXT NOT NULL,
  fill TEXT NOT NULL,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  revision_id TEXT REFERENCES master_revision (id),
  cavities INTEGER NOT NULL CHECK (cavities BETWEEN 1 AND 1000),
  columns INTEGER NOT NULL CHECK (columns > 0),
  rows INTEGER NOT NULL CHECK (rows > 0),
  cavity_ml REAL NOT NULL CHECK (cavity_ml > 0),
  sprue_ml REAL NOT NULL CHECK (sprue_ml >= 0),
  runner_ml REAL NOT NULL CHECK (runner_ml >= 0),
  injector_ml REAL CHECK (injector_ml > 0),
  rubber_id TEXT REFERENCES material (id),
  plan TEXT,
  retired_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE mold_event (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  mold_id TEXT NOT NULL REFERENCES mold (id),
  kind TEXT NOT NULL,
  step TEXT,
  detail TEXT,
  at TEXT NOT NULL
) STRICT;
CREATE INDEX mold_event_by_mold ON mold_event (mold_id, seq);

CREATE TABLE material (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  kind TEXT NOT NULL,
  hex TEXT,
  density_g_per_ml REAL CHECK (density_g_per_ml > 0),
  bulk_g_per_ml REAL CHECK (bulk_g_per_ml > 0),
  drops_per_ml REAL CHECK (drops_per_ml > 0),
  strength REAL NOT NULL CHECK (strength > 0),
  limit_c REAL,
  hardness_scale TEXT CHECK (hardness_scale IN ('A', '00')),
  hardness REAL,
  mix TEXT,
  pot_life_min REAL,
  demold_min REAL,
  rated_c REAL,
  price_per_kg_minor INTEGER CHECK (price_per_kg_minor >= 0),
  reorder_g REAL CHECK (reorder_g >= 0),
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE lot (
  id TEXT PRIMARY KEY,
  material_id TEXT NOT NULL REFERENCES material (id),
  code TEXT NOT NULL,
  bottle_strength REAL NOT NULL CHECK (bottle_strength > 0),
  created_at TEXT NOT NULL,
  UNIQUE (material_id, code)
) STRICT;

-- Grams in and out of a lot: levels are sums.
CREATE TABLE lot_move (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  lot_id TEXT NOT NULL REFERENCES lot (id),
  kind TEXT NOT NULL CHECK (kind IN ('received', 'used', 'counted', 'reversed')),
  grams REAL NOT NULL,
  pour_id TEXT REFERENCES pour (id),
  mold_id TEXT REFERENCES mold (id),
  note TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;

CREATE TABLE recipe (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  hex TEXT NOT NULL,
  notes TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE recipe_revision (
  id TEXT PRIMARY KEY,
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  number INTEGER NOT NULL CHECK (number > 0),
  reason TEXT NOT NULL,
  basis_ml REAL NOT NULL CHECK (basis_ml > 0),
  created_at TEXT NOT NULL,
  UNIQUE (recipe_id, number)
) STRICT;

CREATE TABLE recipe_item (
  id TEXT PRIMARY KEY,
  revision_id TEXT NOT NULL REFERENCES recipe_revision (id),
  position INTEGER NOT NULL,
  material_id TEXT NOT NULL REFERENCES material (id),
  amount REAL NOT NULL CHECK (amount > 0),
  unit TEXT NOT NULL,
  UNIQUE (revision_id, position)
) STRICT;

-- A dosing ledger: what went into one cup, dose by dose, at the bench or while looking for a colour.
CREATE TABLE ledger (
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  batch_ml REAL NOT NULL CHECK (batch_ml > 0),
  recipe_id TEXT REFERENCES recipe (id),
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE dose (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  ledger_id TEXT NOT NULL REFERENCES ledger (id),
  material_id TEXT NOT NULL REFERENCES material (id),
  amount REAL NOT NULL CHECK (amount > 0),
  unit TEXT NOT NULL,
  reverses TEXT UNIQUE REFERENCES dose (id),
  at TEXT NOT NULL
) STRICT;

CREATE TABLE customer (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  contact TEXT NOT NULL DEFAULT '',
  notes TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE customer_order (
  id TEXT PRIMARY KEY,
  code TEXT NOT NULL UNIQUE,
  customer_id TEXT NOT NULL REFERENCES customer (id),
  due_on TEXT NOT NULL,
  notes TEXT NOT NULL DEFAULT '',
  sent_at TEXT,
  cancelled_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE order_line (
  id TEXT PRIMARY KEY,
  order_id TEXT NOT NULL REFERENCES customer_order (id),
  position INTEGER NOT NULL,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  packs INTEGER NOT NULL CHECK (packs > 0),
  per_pack INTEGER NOT NULL CHECK (per_pack > 0),
  price_minor INTEGER CHECK (price_minor >= 0),
  UNIQUE (order_id, position)
) STRICT;

-- A pour is one cup and all that came out of it.
CREATE TABLE pour (
  id TEXT PRIMARY KEY,
  code TEXT NOT NULL UNIQUE,
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  recipe_revision_id TEXT NOT NULL REFERENCES recipe_revision (id),
  plastisol_id TEXT REFERENCES material (id),
  plastisol_lot_id TEXT REFERENCES lot (id),
  ledger_id TEXT NOT NULL UNIQUE REFERENCES ledger (id),
  maker_id TEXT REFERENCES maker (id),
  cook_ml REAL NOT NULL CHECK (cook_ml > 0),
  plan TEXT NOT NULL,
  wanted_scale TEXT CHECK (wanted_scale IN ('A', '00')),
  wanted_hardness REAL,
  laid_out_at TEXT NOT NULL,
  started_at TEXT,
  closed_at TEXT,
  -- Put away before anything was drawn: closed without a balance.
  discarded_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;
CREATE INDEX pour_by_time ON pour (laid_out_at DESC, id DESC);
CREATE INDEX pour_by_recipe ON pour (recipe_id);

CREATE TABLE pour_mold (
  pour_id TEXT NOT NULL REFERENCES pour (id),
  mold_id TEXT NOT NULL REFERENCES mold (id),
  position INTEGER NOT NULL,
  shots INTEGER NOT NULL CHECK (shots > 0),
  -- What came of it, summed from the marks when the cup was closed; no mark changes after that.
  drawn INTEGER,
  good INTEGER,
  bad INTEGER,
  PRIMARY KEY (pour_id, mold_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX pour_mold_by_mold ON pour_mold (mold_id, pour_id);
CREATE INDEX pour_open ON pour (laid_out_at) WHERE closed_at IS NULL;

CREATE TABLE pour_order_line (
  pour_id TEXT NOT NULL REFERENCES pour (id),
  order_line_id TEXT NOT NULL REFERENCES order_line (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  PRIMARY KEY (pour_id, order_line_id)
) STRICT, WITHOUT ROWID;

CREATE TABLE heat (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  kind TEXT NOT NULL CHECK (kind IN ('cook', 'reheat', 'reading', 'reversed')),
  c REAL,
  reverses TEXT UNIQUE REFERENCES heat (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX heat_by_pour ON heat (pour_id);

-- Pinned to the cup as it was: the last dose and the last heat when it was drawn.
CREATE TABLE shot (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  mold_id TEXT NOT NULL REFERENCES mold (id),
  dose_seq INTEGER NOT NULL,
  heat_seq INTEGER NOT NULL,
  reverses TEXT UNIQUE REFERENCES shot (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX shot_by_pour ON shot (pour_id);
CREATE INDEX shot_by_mold ON shot (mold_id);

-- The newest mark of a cavity counts; 'unmarked' takes a mark back.
CREATE TABLE cavity_mark (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  shot_id TEXT NOT NULL REFERENCES shot (id),
  cavity INTEGER NOT NULL CHECK (cavity >= 1),
  result TEXT NOT NULL CHECK (result IN ('good', 'bad', 'unmarked')),
  reason TEXT,
  at TEXT NOT NULL
) STRICT;
CREATE INDEX cavity_mark_by_shot ON cavity_mark (shot_id, cavity, seq);

-- What became of a cup, weighed; weighed again after a slip, the newest counts.
CREATE TABLE balance (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  cooked_g REAL NOT NULL CHECK (cooked_g > 0),
  good_g REAL NOT NULL CHECK (good_g >= 0),
  reject_g REAL NOT NULL CHECK (reject_g >= 0),
  returned_g REAL NOT NULL CHECK (returned_g >= 0),
  residue_g REAL NOT NULL CHECK (residue_g >= 0),
  at TEXT NOT NULL
) STRICT;

CREATE INDEX balance_by_pour ON balance (pour_id, seq);

CREATE TABLE hardness_reading (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  scale TEXT NOT NULL CHECK (scale IN ('A', '00')),
  value REAL NOT NULL CHECK (value BETWEEN 0 AND 100),
  early INTEGER NOT NULL CHECK (early IN (0, 1)),
  reverses TEXT UNIQUE REFERENCES hardness_reading (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX hardness_by_pour ON hardness_reading (pour_id);

CREATE TABLE bag (
  id TEXT PRIMARY KEY,
  code TEXT NOT NULL UNIQUE,
  bait_id TEXT NOT NULL REFERENCES bait (id),
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  order_line_id TEXT REFERENCES order_line (id),
  baits INTEGER NOT NULL CHECK (baits > 0),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX bag_by_line ON bag (order_line_id);

-- Baits in and out of the rack, each move tied to the pour the baits came from.
CREATE TABLE stock_move (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL CHECK (kind IN ('poured', 'packed', 'unpacked', 'fished', 'given', 'scrapped', 'reversed')),
  bait_id TEXT NOT NULL REFERENCES bait (id),
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  pour_id TEXT NOT NULL REFERENCES pour (id),
  baits INTEGER NOT NULL CHECK (baits <> 0),
  bag_id TEXT REFERENCES bag (id),
  reverses TEXT UNIQUE REFERENCES stock_move (id),
  note TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;
CREATE INDEX stock_by_what ON stock_move (bait_id, recipe_id, pour_id);
CREATE INDEX stock_by_pour ON stock_move (pour_id);
CREATE INDEX stock_by_bag ON stock_move (bag_id);

CREATE TABLE remelt_move (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  recipe_id TEXT NOT NULL REFERENCES recipe (id),
  grams REAL NOT NULL CHECK (grams <> 0),
  pour_id TEXT REFERENCES pour (id),
  note TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;

-- Clocks live here, not in a browser: they survive reload, restart and another tablet.
CREATE TABLE clock (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  label TEXT NOT NULL,
  started_at TEXT NOT NULL,
  due_at TEXT NOT NULL,
  about_type TEXT,
  about_id TEXT,
  ended_at TEXT,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX clock_running ON clock (due_at) WHERE ended_at IS NULL;

CREATE TABLE kept_result (
  id TEXT PRIMARY KEY,
  calculator TEXT NOT NULL,
  title TEXT NOT NULL,
  input TEXT NOT NULL,
  output TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE photo (
  id TEXT PRIMARY KEY,
  hash TEXT NOT NULL,
  type TEXT NOT NULL,
  about_type TEXT NOT NULL,
  about_id TEXT NOT NULL,
  created_at TEXT NOT NULL,
  UNIQUE (about_type, about_id, hash)
) STRICT;

-- One answer per key: a tap sent again after a lost answer is answered, not counted, again.
CREATE TABLE idempotency (
  key TEXT PRIMARY KEY,
  request TEXT NOT NULL,
  status INTEGER NOT NULL,
  body TEXT NOT NULL,
  at TEXT NOT NULL
) STRICT;

CREATE TABLE passcode (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  salt BLOB NOT NULL,
  hash BLOB NOT NULL
) STRICT;

CREATE TABLE session (
  token_hash BLOB PRIMARY KEY,
  expires_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE counter (name TEXT PRIMARY KEY, value INTEGER NOT NULL) STRICT, WITHOUT ROWID;

CREATE INDEX shot_mark_results ON cavity_mark (shot_id, result);
CREATE INDEX order_line_by_order ON order_line (order_id);
CREATE INDEX lot_move_by_lot ON lot_move (lot_id);
CREATE INDEX revision_by_master ON master_revision (master_id);
CREATE INDEX item_by_revision ON recipe_item (revision_id);
CREATE INDEX dose_by_ledger ON dose (ledger_id);

-- What happened is never overwritten: a mistake is a reversing row.
CREATE TRIGGER master_revision_no_update BEFORE UPDATE ON master_revision BEGIN SELECT RAISE(ABORT, 'master_revision rows are only added'); END;
CREATE TRIGGER master_revision_no_delete BEFORE DELETE ON master_revision BEGIN SELECT RAISE(ABORT, 'master_revision rows are only added'); END;
CREATE TRIGGER volume_reading_no_update BEFORE UPDATE ON volume_reading BEGIN SELECT RAISE(ABORT, 'volume_reading rows are only added'); END;
CREATE TRIGGER volume_reading_no_delete BEFORE DELETE ON volume_reading BEGIN SELECT RAISE(ABORT, 'volume_reading rows are only added'); END;
CREATE TRIGGER mold_event_no_update BEFORE UPDATE ON mold_event BEGIN SELECT RAISE(ABORT, 'mold_event rows are only added'); END;
CREATE TRIGGER mold_event_no_delete BEFORE DELETE ON mold_event BEGIN SELECT RAISE(ABORT, 'mold_event rows are only added'); END;
CREATE TRIGGER lot_move_no_update BEFORE UPDATE ON lot_move BEGIN SELECT RAISE(ABORT, 'lot_move rows are only added'); END;
CREATE TRIGGER lot_move_no_delete BEFORE DELETE ON lot_move BEGIN SELECT RAISE(ABORT, 'lot_move rows are only added'); END;
CREATE TRIGGER recipe_revision_no_update BEFORE UPDATE ON recipe_revision BEGIN SELECT RAISE(ABORT, 'recipe_revision rows are only added'); END;
CREATE TRIGGER recipe_revision_no_delete BEFORE DELETE ON recipe_revision BEGIN SELECT RAISE(ABORT, 'recipe_revision rows are only added'); END;
CREATE TRIGGER recipe_item_no_update BEFORE UPDATE ON recipe_item BEGIN SELECT RAISE(ABORT, 'recipe_item rows are only added'); END;
CREATE TRIGGER recipe_item_no_delete BEFORE DELETE ON recipe_item BEGIN SELECT RAISE(ABORT, 'recipe_item rows are only added'); END;
CREATE TRIGGER dose_no_update BEFORE UPDATE ON dose BEGIN SELECT RAISE(ABORT, 'dose rows are only added'); END;
CREATE TRIGGER dose_no_delete BEFORE DELETE ON dose BEGIN SELECT RAISE(ABORT, 'dose rows are only added'); END;
CREATE TRIGGER heat_no_update BEFORE UPDATE ON heat BEGIN SELECT RAISE(ABORT, 'heat rows are only added'); END;
CREATE TRIGGER heat_no_delete BEFORE DELETE ON heat BEGIN SELECT RAISE(ABORT, 'heat rows are only added'); END;
CREATE TRIGGER shot_no_update BEFORE UPDATE ON shot BEGIN SELECT RAISE(ABORT, 'shot rows are only added'); END;
CREATE TRIGGER shot_no_delete BEFORE DELETE ON shot BEGIN SELECT RAISE(ABORT, 'shot rows are only added'); END;
CREATE TRIGGER cavity_mark_no_update BEFORE UPDATE ON cavity_mark BEGIN SELECT RAISE(ABORT, 'cavity_mark rows are only added'); END;
CREATE TRIGGER cavity_mark_no_delete BEFORE DELETE ON cavity_mark BEGIN SELECT RAISE(ABORT, 'cavity_mark rows are only added'); END;
CREATE TRIGGER balance_no_update BEFORE UPDATE ON balance BEGIN SELECT RAISE(ABORT, 'balance rows are only added'); END;
CREATE TRIGGER balance_no_delete BEFORE DELETE ON balance BEGIN SELECT RAISE(ABORT, 'balance rows are only added'); END;
CREATE TRIGGER hardness_reading_no_update BEFORE UPDATE ON hardness_reading BEGIN SELECT RAISE(ABORT, 'hardness_reading rows are only added'); END;
CREATE TRIGGER hardness_reading_no_delete BEFORE DELETE ON hardness_reading BEGIN SELECT RAISE(ABORT, 'hardness_reading rows are only added'); END;
CREATE TRIGGER bag_no_update BEFORE UPDATE ON bag BEGIN SELECT RAISE(ABORT, 'bag rows are only added'); END;
CREATE TRIGGER bag_no_delete BEFORE DELETE ON bag BEGIN SELECT RAISE(ABORT, 'bag rows are only added'); END;
CREATE TRIGGER stock_move_no_update BEFORE UPDATE ON stock_move BEGIN SELECT RAISE(ABORT, 'stock_move rows are only added'); END;
CREATE TRIGGER stock_move_no_delete BEFORE DELETE ON stock_move BEGIN SELECT RAISE(ABORT, 'stock_move rows are only added'); END;
CREATE TRIGGER remelt_move_no_update BEFORE UPDATE ON remelt_move BEGIN SELECT RAISE(ABORT, 'remelt_move rows are only added'); END;
CREATE TRIGGER remelt_move_no_delete BEFORE DELETE ON remelt_move BEGIN SELECT RAISE(ABORT, 'remelt_move rows are only added'); END;

CREATE VIEW shot_live AS
  SELECT s.* FROM shot s WHERE s.reverses IS NULL AND NOT EXISTS (SELECT 1 FROM shot u WHERE u.reverses = s.id);

-- Of each cavity of each shot, the newest mark.
CREATE VIEW mark_now AS
  SELECT m.shot_id, s.pour_id, s.mold_id, m.cavity, m.result, m.reason, max(m.seq) AS seq
  FROM cavity_mark m JOIN shot_live s ON s.id = m.shot_id GROUP BY m.shot_id, m.cavity;

-- What lies on the rack, by the pour it came from; cured 24 hours after the pour's last shot.
CREATE VIEW rack AS
  SELECT k.bait_id, k.recipe_id, k.pour_id, sum(k.baits) AS baits,
    (SELECT strftime('%Y-%m-%dT%H:%M:%fZ', max(s.at), '+24 hours') FROM shot_live s WHERE s.pour_id = k.pour_id) AS cured_at
  FROM stock_move k GROUP BY k.bait_id, k.recipe_id, k.pour_id HAVING sum(k.baits) <> 0;
