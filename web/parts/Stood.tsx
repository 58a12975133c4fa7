import { STANDS, type Standing } from '../../core/mold/stands.ts';

/** Which way up a mold is filled; as is usual, where nobody said. */
export function Stood({ of: { way, byDefault } }: { of: Standing }) {
  return (
    <>
      filled {STANDS[way]}
      {byDefault && <span className="default-mark"> default</span>}
    </>
  );
}
