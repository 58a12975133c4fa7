import type { PlannedCup } from './production.ts';

interface Asks {
  id: string;
  baitId: string;
  colourId: string;
  baits: number;
}

/** The lines that a planned cup is laid out for: of its baits and its colour, in their order, as far as it goes. */
export function forLines({ colourId, molds }: Pick<PlannedCup, 'colourId' | 'molds'>, lines: Asks[]) {
  const room = new Map<string, number>();
  for (const { baitId, baits } of molds) room.set(baitId, (room.get(baitId) ?? 0) + baits);
  return lines.flatMap((line) => {
    const left = line.colourId === colourId ? Math.min(line.baits, room.get(line.baitId) ?? 0) : 0;
    if (left === 0) return [];
    room.set(line.baitId, (room.get(line.baitId) ?? 0) - left);
    return [{ orderLineId: line.id, baits: left }];
  });
}
