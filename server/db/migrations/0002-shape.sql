-- A mesh: the file as it came, by the hash of its content, and what it measures.
CREATE TABLE mesh (
  id TEXT PRIMARY KEY,
  hash TEXT NOT NULL,
  format TEXT NOT NULL CHECK (format IN ('stl', 'stl-text', 'obj')),
  unit TEXT NOT NULL CHECK (unit IN ('mm', 'cm', 'in', 'm')),
  bytes INTEGER NOT NULL CHECK (bytes > 0),
  facts TEXT NOT NULL,
  -- The mesh that this one was made from by a repair, and what that changed.
  from_id TEXT REFERENCES mesh (id),
  changed TEXT,
  created_at TEXT NOT NULL
) STRICT;
CREATE TRIGGER mesh_no_update BEFORE UPDATE ON mesh BEGIN SELECT RAISE(ABORT, 'mesh rows are only added'); END;
CREATE TRIGGER mesh_no_delete BEFORE DELETE ON mesh BEGIN SELECT RAISE(ABORT, 'mesh rows are only added'); END;

-- A revision may have a shape: figures it was sculpted from, and the mesh itself.
ALTER TABLE master_revision ADD COLUMN spec TEXT;
ALTER TABLE master_revision ADD COLUMN mesh_id TEXT REFERENCES mesh (id);

-- A volume may now come from the mesh: the old check is lifted by building the table anew.
CREATE TABLE volume_reading_with_mesh (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  revision_id TEXT NOT NULL REFERENCES master_revision (id),
  how TEXT NOT NULL CHECK (how IN ('weighed', 'displaced', 'mesh')),
  grams REAL,
  density_g_per_ml REAL,
  ml REAL NOT NULL CHECK (ml > 0),
  at TEXT NOT NULL
) STRICT;
INSERT INTO volume_reading_with_mesh (seq, id, revision_id, how, grams, density_g_per_ml, ml, at)
  SELECT seq, id, revision_id, how, grams, density_g_per_ml, ml, at FROM volume_reading;
DROP TABLE volume_reading;
ALTER TABLE volume_reading_with_mesh RENAME TO volume_reading;
CREATE INDEX volume_reading_by_revision ON volume_reading (revision_id, seq);
CREATE TRIGGER volume_reading_no_update BEFORE UPDATE ON volume_reading BEGIN SELECT RAISE(ABORT, 'volume_reading rows are only added'); END;
CREATE TRIGGER volume_reading_no_delete BEFORE DELETE ON volume_reading BEGIN SELECT RAISE(ABORT, 'volume_reading rows are only added'); END;

-- What a bait did in water; taken back by a row that says so.
CREATE TABLE water_test (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  revision_id TEXT NOT NULL REFERENCES master_revision (id),
  place TEXT NOT NULL CHECK (place IN ('tank', 'lake')),
  place_name TEXT NOT NULL,
  blend TEXT NOT NULL,
  scale TEXT CHECK (scale IN ('A', '00')),
  hardness REAL,
  speeds TEXT NOT NULL,
  roll TEXT CHECK (roll IN ('none', 'some', 'much')),
  runs TEXT CHECK (runs IN ('true', 'left', 'right')),
  sink_s REAL CHECK (sink_s > 0),
  sink_depth_mm REAL CHECK (sink_depth_mm > 0),
  rig TEXT NOT NULL,
  weight_g REAL CHECK (weight_g >= 0),
  minutes REAL CHECK (minutes >= 0),
  fish INTEGER CHECK (fish >= 0),
  ending TEXT CHECK (ending IN ('whole', 'torn', 'lost', 'void')),
  notes TEXT NOT NULL,
  reverses TEXT UNIQUE REFERENCES water_test (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX water_test_by_revision ON water_test (revision_id, seq);
CREATE TRIGGER water_test_no_update BEFORE UPDATE ON water_test BEGIN SELECT RAISE(ABORT, 'water_test rows are only added'); END;
CREATE TRIGGER water_test_no_delete BEFORE DELETE ON water_test BEGIN SELECT RAISE(ABORT, 'water_test rows are only added'); END;

-- A tail ladder: stub bodies with stepped wrists and paddles, poured together, and what each did.
CREATE TABLE ladder (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  scale TEXT NOT NULL CHECK (scale IN ('A', '00')),
  hardness REAL NOT NULL,
  walking_m_per_s REAL NOT NULL CHECK (walking_m_per_s > 0),
  steps TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;
CREATE TABLE ladder_trial (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  ladder_id TEXT NOT NULL REFERENCES ladder (id),
  step INTEGER NOT NULL CHECK (step BETWEEN 0 AND 19),
  hz REAL CHECK (hz > 0),
  kicks_at_m_per_s REAL CHECK (kicks_at_m_per_s > 0),
  not_at_m_per_s REAL CHECK (not_at_m_per_s > 0),
  reverses TEXT UNIQUE REFERENCES ladder_trial (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX ladder_trial_by_ladder ON ladder_trial (ladder_id, seq);
CREATE TRIGGER ladder_no_update BEFORE UPDATE ON ladder BEGIN SELECT RAISE(ABORT, 'ladder rows are only added'); END;
CREATE TRIGGER ladder_no_delete BEFORE DELETE ON ladder BEGIN SELECT RAISE(ABORT, 'ladder rows are only added'); END;
CREATE TRIGGER ladder_trial_no_update BEFORE UPDATE ON ladder_trial BEGIN SELECT RAISE(ABORT, 'ladder_trial rows are only added'); END;
CREATE TRIGGER ladder_trial_no_delete BEFORE DELETE ON ladder_trial BEGIN SELECT RAISE(ABORT, 'ladder_trial rows are only added'); END;
