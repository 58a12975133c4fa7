-- What was said at the bench by a tap and has no figure of its own; what nobody tapped is not known.
CREATE TABLE bench_tick (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pour_id TEXT NOT NULL REFERENCES pour (id),
  -- Of a shot: its mold, which shot of it in this cup, and which layer.
  mold_id TEXT REFERENCES mold (id),
  nth INTEGER CHECK (nth > 0),
  layer INTEGER CHECK (layer >= 0),
  what TEXT NOT NULL,
  said TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES bench_tick (id),
  at TEXT NOT NULL,
  CHECK ((mold_id IS NULL) = (nth IS NULL))
) STRICT;
CREATE INDEX bench_tick_by_pour ON bench_tick (pour_id, seq);
CREATE TRIGGER bench_tick_no_update BEFORE UPDATE ON bench_tick BEGIN SELECT RAISE(ABORT, 'bench_tick rows are only added'); END;
CREATE TRIGGER bench_tick_no_delete BEFORE DELETE ON bench_tick BEGIN SELECT RAISE(ABORT, 'bench_tick rows are only added'); END;

-- What stands at the bench: how bubbles are got out, injectors, places on a hot plate, and whether a cup is kept warm between shots.
ALTER TABLE workshop ADD COLUMN degassing TEXT NOT NULL DEFAULT 'none' CHECK (degassing IN ('none', 'vacuum', 'rest'));
ALTER TABLE workshop ADD COLUMN injectors INTEGER NOT NULL DEFAULT 1 CHECK (injectors > 0);
ALTER TABLE workshop ADD COLUMN plate_places INTEGER NOT NULL DEFAULT 0 CHECK (plate_places >= 0);
ALTER TABLE workshop ADD COLUMN keep_warm INTEGER NOT NULL DEFAULT 1 CHECK (keep_warm IN (0, 1));

-- A thermometer, a scale or an oven that tells by itself: the stand-in that ships, or one that sends lines.
CREATE TABLE instrument (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('thermometer', 'scale', 'oven')),
  name TEXT NOT NULL,
  how TEXT NOT NULL CHECK (how IN ('stand-in', 'lines')),
  -- The cup that it is at, and where baits are weighed the shot that they are of.
  pour_id TEXT REFERENCES pour (id),
  shot_id TEXT REFERENCES shot (id),
  away_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL
) STRICT;

-- Which instrument told a reading; null: it was typed.
ALTER TABLE heat ADD COLUMN instrument_id TEXT REFERENCES instrument (id);
-- What a shot or one of its baits weighed on the scale.
CREATE TABLE bait_weighing (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  shot_id TEXT NOT NULL REFERENCES shot (id),
  -- As its shot says: what a cavity's baits weigh is found without reading all of its shots.
  mold_id TEXT NOT NULL REFERENCES mold (id),
  cavity INTEGER NOT NULL CHECK (cavity > 0),
  grams REAL NOT NULL CHECK (grams > 0),
  instrument_id TEXT REFERENCES instrument (id),
  reverses TEXT UNIQUE REFERENCES bait_weighing (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX bait_weighing_by_shot ON bait_weighing (shot_id);
CREATE INDEX bait_weighing_by_cavity ON bait_weighing (mold_id, cavity, seq);
CREATE TRIGGER bait_weighing_no_update BEFORE UPDATE ON bait_weighing BEGIN SELECT RAISE(ABORT, 'bait_weighing rows are only added'); END;
CREATE TRIGGER bait_weighing_no_delete BEFORE DELETE ON bait_weighing BEGIN SELECT RAISE(ABORT, 'bait_weighing rows are only added'); END;

-- How warm a bait was when its hardness was read: cold ones are firmer.
ALTER TABLE hardness_reading ADD COLUMN c REAL;
