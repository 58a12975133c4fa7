-- What a mold is besides its cavities: eye size, hook slot, plate; what is set into its cavities; how it was built.
ALTER TABLE mold ADD COLUMN fitting TEXT;
ALTER TABLE mold ADD COLUMN inserts TEXT;
ALTER TABLE mold ADD COLUMN build TEXT;
-- How its masters are held and stand, the epoxy bed under them, and how bubbles are kept out.
ALTER TABLE mold ADD COLUMN making TEXT;
-- How a rubber cures, which decides what stops it; and how hard it is to tear, kN/m.
ALTER TABLE material ADD COLUMN cure TEXT CHECK (cure IN ('platinum', 'tin'));
ALTER TABLE material ADD COLUMN tear_kn_per_m REAL CHECK (tear_kn_per_m > 0);
-- The mold that this one was made anew of, when that was worn out.
ALTER TABLE mold ADD COLUMN rebuilt_from_id TEXT REFERENCES mold (id);

-- What a mold or its baits weighed, taken back by a row that says so.
CREATE TABLE mold_weighing (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  mold_id TEXT NOT NULL REFERENCES mold (id),
  of TEXT NOT NULL CHECK (of IN ('bait', 'shot', 'sprue')),
  count INTEGER NOT NULL CHECK (count > 0),
  grams REAL NOT NULL CHECK (grams > 0),
  density_g_per_ml REAL NOT NULL CHECK (density_g_per_ml > 0),
  reverses TEXT UNIQUE REFERENCES mold_weighing (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX mold_weighing_by_mold ON mold_weighing (mold_id, seq);
CREATE TRIGGER mold_weighing_no_update BEFORE UPDATE ON mold_weighing BEGIN SELECT RAISE(ABORT, 'mold_weighing rows are only added'); END;
CREATE TRIGGER mold_weighing_no_delete BEFORE DELETE ON mold_weighing BEGIN SELECT RAISE(ABORT, 'mold_weighing rows are only added'); END;

-- The wall that dips built, by the cup's temperature.
CREATE TABLE dip_reading (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  mold_id TEXT NOT NULL REFERENCES mold (id),
  dips INTEGER NOT NULL CHECK (dips > 0),
  wall_mm REAL NOT NULL CHECK (wall_mm > 0),
  cup_c REAL NOT NULL,
  reverses TEXT UNIQUE REFERENCES dip_reading (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX dip_reading_by_mold ON dip_reading (mold_id, seq);
CREATE TRIGGER dip_reading_no_update BEFORE UPDATE ON dip_reading BEGIN SELECT RAISE(ABORT, 'dip_reading rows are only added'); END;
CREATE TRIGGER dip_reading_no_delete BEFORE DELETE ON dip_reading BEGIN SELECT RAISE(ABORT, 'dip_reading rows are only added'); END;

-- A run of the spark machine on one electrode: what was set, what was seen.
CREATE TABLE spark_run (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  mold_id TEXT NOT NULL REFERENCES mold (id),
  electrode TEXT NOT NULL,
  pass TEXT NOT NULL CHECK (pass IN ('roughing', 'finishing')),
  amps REAL NOT NULL CHECK (amps > 0),
  from_mm REAL NOT NULL CHECK (from_mm >= 0),
  to_mm REAL NOT NULL CHECK (to_mm > from_mm),
  minutes REAL NOT NULL CHECK (minutes > 0),
  efficiency REAL CHECK (efficiency BETWEEN 0 AND 1),
  seen TEXT NOT NULL CHECK (seen IN ('clean', 'pits', 'arc')),
  reverses TEXT UNIQUE REFERENCES spark_run (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX spark_run_by_mold ON spark_run (mold_id, seq);
CREATE TRIGGER spark_run_no_update BEFORE UPDATE ON spark_run BEGIN SELECT RAISE(ABORT, 'spark_run rows are only added'); END;
CREATE TRIGGER spark_run_no_delete BEFORE DELETE ON spark_run BEGIN SELECT RAISE(ABORT, 'spark_run rows are only added'); END;
