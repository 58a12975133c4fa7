-- What is no longer made or bought leaves the lists without leaving the records.
ALTER TABLE bait ADD COLUMN away_at TEXT;
ALTER TABLE recipe ADD COLUMN away_at TEXT;
ALTER TABLE material ADD COLUMN away_at TEXT;
ALTER TABLE customer ADD COLUMN away_at TEXT;
ALTER TABLE ledger ADD COLUMN away_at TEXT;

-- The bag that an empty one was taken for.
ALTER TABLE lot_move ADD COLUMN bag_id TEXT REFERENCES bag (id);

-- A kept result can be called otherwise.
ALTER TABLE kept_result ADD COLUMN version INTEGER NOT NULL DEFAULT 1;

-- Nobody reads it any more: the hours of cure are the program's.
DROP VIEW rack;
