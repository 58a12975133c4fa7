-- A ladder can be called otherwise and put away; what was tried on it stays as it is.
ALTER TABLE ladder ADD COLUMN away_at TEXT;
ALTER TABLE ladder ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
DROP TRIGGER ladder_no_update;
DROP TRIGGER ladder_no_delete;
