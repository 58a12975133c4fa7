import { CURE_MS } from '../../core/process/cure.ts';

/** What lies on the rack, by the pour it came from, with the moment it is cured; a closed cup's last shot never changes. */
export const RACK = `(SELECT bait_id, colourway_id, pour_id, grade, baits,
  strftime('%Y-%m-%dT%H:%M:%fZ', last_shot_at, '+${CURE_MS / 1000} seconds') AS cured_at
  FROM rack_level WHERE baits <> 0) AS rack`;
