-- Baits that there is room for to lie and cure; null: nobody said.
ALTER TABLE workshop ADD COLUMN board_baits INTEGER CHECK (board_baits > 0);
-- From the day it is ordered until it is there; null: nobody said.
ALTER TABLE material ADD COLUMN lead_days INTEGER CHECK (lead_days >= 0);

-- Who drew what is pushed together out of injectors has as many of them, whatever was said.
UPDATE workshop SET injectors = max(injectors, coalesce((
  SELECT max(n) FROM (
    SELECT 1 + count(*) AS n FROM colourway_layer l
    WHERE l.joins = 'together' AND EXISTS (
      SELECT 1 FROM pour p JOIN shot s ON s.pour_id = p.id JOIN mold m ON m.id = s.mold_id
      WHERE p.colourway_revision_id = l.revision_id AND m.fill = 'injection')
    GROUP BY l.revision_id)), 1));
