/** Baits of one cup that were sold on one line of an order. */
export interface SoldRow {
  orderId: string;
  code: string;
  customerId: string;
  customer: string;
  baitId: string;
  bait: string;
  colourwayId: string;
  colour: string;
  hex: string;
  /** The evening on which they were poured, yyyy-MM-dd. */
  evening: string;
  baits: number;
  /** What was paid for them; null: no price was agreed. */
  revenueMinor: number | null;
  /** Plastic, colour, bags, labels at what their lots cost, minor units. */
  materialMinor: number;
  /** Hands, by what the mold and a bag take here. */
  minutes: number;
  gift: boolean;
}

export const MARGINS_BY = ['bait', 'colour', 'customer', 'order', 'evening'] as const;
export type MarginsBy = (typeof MARGINS_BY)[number];

export interface Margin {
  key: string;
  name: string;
  hex: string | null;
  baits: number;
  revenueMinor: number;
  materialMinor: number;
  labourMinor: number;
  minutes: number;
  /** What is left of what was paid, after materials and the wage. */
  marginMinor: number;
  /** What an hour of hands brought before any wage; null: no hands are known. */
  perHourMinor: number | null;
}

const KEYS: Record<MarginsBy, (row: SoldRow) => [key: string, name: string, hex: string | null]> = {
  bait: (row) => [row.baitId, row.bait, null],
  colour: (row) => [row.colourwayId, row.colour, row.hex],
  customer: (row) => [row.customerId, row.customer, null],
  order: (row) => [row.orderId, `${row.code} ${row.customer}`, null],
  evening: (row) => [row.evening, row.evening, null],
};

/**
 * What was sold, summed by bait, colour, customer, order or evening; what was given away and what has no price is no sale.
 * @returns the best hour first.
 * Source: contribution margin; money an hour = (paid − materials) ÷ hours.
 */
export function marginsBy(rows: SoldRow[], by: MarginsBy, wagePerHourMinor = 0): Margin[] {
  const groups = new Map<string, Margin>();
  for (const row of rows) {
    if (row.gift || row.revenueMinor === null) continue;
    const [key, name, hex] = KEYS[by](row);
    const sum = groups.get(key) ?? {
      key,
      name,
      hex,
      baits: 0,
      revenueMinor: 0,
      materialMinor: 0,
      labourMinor: 0,
      minutes: 0,
      marginMinor: 0,
      perHourMinor: null,
    };
    sum.baits += row.baits;
    sum.revenueMinor += row.revenueMinor;
    sum.materialMinor += row.materialMinor;
    sum.minutes += row.minutes;
    groups.set(key, sum);
  }
  const told = [...groups.values()].map((sum): Margin => {
    const labourMinor = (sum.minutes / 60) * wagePerHourMinor;
    return {
      ...sum,
      labourMinor,
      marginMinor: sum.revenueMinor - sum.materialMinor - labourMinor,
      perHourMinor: sum.minutes > 0 ? (sum.revenueMinor - sum.materialMinor) / (sum.minutes / 60) : null,
    };
  });
  return told.sort((a, b) => (b.perHourMinor ?? 0) - (a.perHourMinor ?? 0));
}

/** What was given away, at its cost: materials and the wage. */
export function giftsOf(rows: SoldRow[], wagePerHourMinor = 0): { baits: number; costMinor: number } {
  const given = rows.filter(({ gift }) => gift);
  const minutes = given.reduce((sum, row) => sum + row.minutes, 0);
  return {
    baits: given.reduce((sum, { baits }) => sum + baits, 0),
    costMinor: given.reduce((sum, row) => sum + row.materialMinor, 0) + (minutes / 60) * wagePerHourMinor,
  };
}
