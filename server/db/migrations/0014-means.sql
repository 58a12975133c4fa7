-- Baits that there is room for to lie and cure; null: nobody said.
ALTER TABLE workshop ADD COLUMN board_baits INTEGER CHECK (board_baits > 0);
-- From the day it is ordered until it is there; null: nobody said.
ALTER TABLE material ADD COLUMN lead_days INTEGER CHECK (lead_days >= 0);
