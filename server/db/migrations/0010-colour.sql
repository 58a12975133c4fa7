-- A step of a colourant as it was seen over black and over white, and what it was worked out to do to light.
CREATE TABLE colour_step (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  material_id TEXT NOT NULL REFERENCES material (id),
  -- Typed in, or read off a photo.
  how TEXT NOT NULL CHECK (how IN ('typed', 'photo')),
  thickness_mm REAL NOT NULL CHECK (thickness_mm > 0),
  -- Of the house strength, in a litre of plain plastisol.
  ml_per_l REAL NOT NULL CHECK (ml_per_l > 0),
  over_black TEXT NOT NULL,
  over_white TEXT NOT NULL,
  -- What the plain plastic was taken for.
  plain TEXT NOT NULL,
  -- K and S a mm at 1 mL/L.
  optics TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  reverses TEXT UNIQUE REFERENCES colour_step (id),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX colour_step_by_material ON colour_step (material_id, seq);
CREATE TRIGGER colour_step_no_update BEFORE UPDATE ON colour_step BEGIN SELECT RAISE(ABORT, 'colour_step rows are only added'); END;
CREATE TRIGGER colour_step_no_delete BEFORE DELETE ON colour_step BEGIN SELECT RAISE(ABORT, 'colour_step rows are only added'); END;

-- Of flake and salt: across, and how flake is cut. Null: the usual one.
ALTER TABLE material ADD COLUMN size_mm REAL CHECK (size_mm > 0);
ALTER TABLE material ADD COLUMN cut TEXT CHECK (cut IN ('hex', 'square', 'string'));
