-- What a mesh covers from above and from the side, as it is drawn in lists. Of meshes of an older program it is drawn later.
CREATE TABLE mesh_outline (
  mesh_id TEXT PRIMARY KEY REFERENCES mesh (id),
  above TEXT NOT NULL,
  side TEXT NOT NULL,
  -- Over its length.
  wide REAL NOT NULL CHECK (wide > 0),
  tall REAL NOT NULL CHECK (tall > 0)
) STRICT;
CREATE TRIGGER mesh_outline_no_update BEFORE UPDATE ON mesh_outline BEGIN SELECT RAISE(ABORT, 'mesh_outline rows are only added'); END;
CREATE TRIGGER mesh_outline_no_delete BEFORE DELETE ON mesh_outline BEGIN SELECT RAISE(ABORT, 'mesh_outline rows are only added'); END;

-- What this revision is made of: a specimen is cast in resin, clay goes on to a print. Null: what the master is made of.
ALTER TABLE master_revision ADD COLUMN kind TEXT;
