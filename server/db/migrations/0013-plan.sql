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
  what TEXT NOT NULL CHECK (what IN ('packs', 'per-pack', 'colour', 'back-order')),
  was TEXT NOT NULL,
  now TEXT NOT NULL,
  why TEXT NOT NULL DEFAULT '',
  at TEXT NOT NULL
) STRICT;
CREATE INDEX line_change_by_order ON line_change (order_id, seq);
CREATE TRIGGER line_change_no_update BEFORE UPDATE ON line_change BEGIN SELECT RAISE(ABORT, 'line_change rows are only added'); END;
CREATE TRIGGER line_change_no_delete BEFORE DELETE ON line_change BEGIN SELECT RAISE(ABORT, 'line_change rows are only added'); END;
