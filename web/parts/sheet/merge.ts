const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

export interface Merged<V> {
  values: V;
  /** Fields that were typed here and have since been changed elsewhere to something else. */
  elsewhere: string[];
}

/** What was typed over what was seen, carried over to what is there now: nothing that was typed is replaced. */
export function merge<V extends object>(seen: V, mine: V, theirs: V): Merged<V> {
  const elsewhere: string[] = [];
  const values = { ...theirs };
  // What the record has no field for any more, such as of a draft from before an upgrade, is let go.
  for (const key of Object.keys(theirs) as (keyof V & string)[]) {
    if (same(mine[key], seen[key])) continue;
    values[key] = mine[key];
    if (!same(seen[key], theirs[key]) && !same(mine[key], theirs[key])) elsewhere.push(key);
  }
  return { values, elsewhere };
}
