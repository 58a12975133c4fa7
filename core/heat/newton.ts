/** What a body that cools as Newton says is at after s seconds. °C. Source: Newton's law of cooling. */
export const cooledC = (fromC: number, roomC: number, tauS: number, s: number): number =>
  roomC + (fromC - roomC) * Math.exp(-Math.max(0, s) / tauS);

/** Seconds until it has fallen so far; 0 where it is there already, never at or under its room. */
export const coolsToS = (fromC: number, toC: number, roomC: number, tauS: number): number => {
  if (fromC <= toC) return 0;
  return toC <= roomC ? Number.POSITIVE_INFINITY : tauS * Math.log((fromC - roomC) / (toC - roomC));
};
