// Random evenings against a tally kept beside them: whatever is poured, packed, sold, thrown away or taken back, the
// rack, the bins, the lots and the mold's own counts say what the tally says.
import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Bin } from '../contract/bins.ts';
import type { Page } from '../contract/fields.ts';
import type { Material } from '../contract/materials.ts';
import type { Mold } from '../contract/molds.ts';
import type { Order, RackRow, StockMove } from '../contract/orders.ts';
import type { Pour } from '../contract/pours.ts';
import { type Stocked, stocked, TestWorkshop } from './testing/workshop.ts';

type Act =
  | { does: 'cup'; shots: number; bad: number; own: number; drops: number; remelt: number; slips: boolean }
  | { does: 'weigh' | 'leave' | 'pack' | 'buy' | 'wait'; n: number }
  | { does: 'return' | 'unpack' };

const act: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      does: fc.constant('cup' as const),
      shots: fc.integer({ min: 1, max: 4 }),
      bad: fc.nat(2),
      own: fc.nat(2),
      drops: fc.nat(30),
      // Tenths of the cup that are remelt, also more than lies in the bin.
      remelt: fc.constantFrom(0, 0, 3, 10),
      slips: fc.boolean(),
    }),
  },
  {
    weight: 6,
    arbitrary: fc.record({
      does: fc.constantFrom('weigh' as const, 'leave' as const, 'pack' as const, 'buy' as const, 'wait' as const),
      n: fc.integer({ min: 1, max: 30 }),
    }),
  },
  { weight: 2, arbitrary: fc.record({ does: fc.constantFrom('return' as const, 'unpack' as const) }) },
);

interface Rack {
  items: RackRow[];
  moves: StockMove[];
}

const CAVITIES = 4;
const BAIT_G = 10.2;
const DROP_G = 1 / 20;

/** The workshop, and what it ought to say. */
class Evening {
  private rack = 0;
  private remeltG = 0;
  private plastisolG = 5000;
  private colourG = 100;
  private made = 0;
  private bad = 0;
  private own = 0;
  private packed = 0;
  private readonly closed: { id: string; good: number; bad: number; weighed: number; dosedG: number }[] = [];
  private readonly left: { id: string; baits: number }[] = [];
  private readonly seen = new Set<string>();
  private readonly bags: string[] = [];

  constructor(
    readonly workshop: TestWorkshop,
    readonly stock: Stocked,
  ) {}

  private async sent<T>(path: string, body: unknown): Promise<T> {
    const answer = await this.workshop.post<T>(path, body);
    if (answer.status >= 300) throw new Error(`${path}: ${JSON.stringify(answer.body)}`);
    return answer.body;
  }

  private weights(good: number, bad: number, returned: number, dosedG: number) {
    return { cookedG: 300 + dosedG, goodG: good * BAIT_G, rejectG: bad * BAIT_G, returnedG: returned, residueG: 1 };
  }

  private async cup({ shots, bad, own, drops, remelt, slips }: Extract<Act, { does: 'cup' }>) {
    const { mold, recipe, colourant, plastisol } = this.stock;
    const [bin] = (await this.workshop.get<Page<Bin>>('/bins')).body.items;
    const share = bin ? remelt / 10 : 0;
    const blend = [
      { materialId: plastisol.id, share: 1 - share },
      { binId: bin?.id, share },
    ].filter((part) => part.share > 0);
    const pour = await this.sent<Pour>('/pours', {
      colourwayId: recipe.id,
      molds: [{ moldId: mold.id, shots }],
      blend,
    });
    const dose = (amount: number) =>
      this.sent<{ doses: { id: string }[] }>(`/ledgers/${pour.ledgerId}/doses`, {
        materialId: colourant.id,
        amount,
        unit: 'drop',
      });
    if (slips) {
      const wrong = await dose(drops + 7);
      await this.sent('/undo', { rowId: wrong.doses.at(-1)?.id });
    }
    if (drops > 0) await dose(drops);
    for (let n = 0; n < shots; n++) {
      const drawn = await this.sent<Pour>(`/pours/${pour.id}/shots`, { moldId: mold.id });
      if (slips && n === 0) {
        await this.sent('/undo', { rowId: drawn.shots.at(-1)?.id });
        n--;
        slips = false;
        continue;
      }
      const marks = Array.from({ length: CAVITIES }, (_, i) => {
        if (n === 0 && i < bad) return { cavity: i + 1, grade: 'remelt', reason: 'bubble' };
        if (n === 0 && i < bad + own) return { cavity: i + 1, grade: 'own', reason: 'colour' };
        return { cavity: i + 1, grade: 'sell' };
      });
      await this.sent(`/pours/${pour.id}/shots/${drawn.shots.at(-1)?.id}/marks`, { marks });
    }
    const [good, dosedG] = [shots * CAVITIES - bad, drops * DROP_G];
    this.own += own;
    await this.sent(`/pours/${pour.id}/close`, this.weights(good, bad, 20, dosedG));
    this.closed.push({ id: pour.id, good, bad, weighed: 20, dosedG });
    this.rack += good - own;
    this.made += shots * CAVITIES;
    this.bad += bad + own;
    this.remeltG += bad * BAIT_G + 20 - 300 * share;
    this.plastisolG -= 300 * (1 - share);
    this.colourG -= dosedG;
  }

  private async weigh(n: number) {
    const cup = this.closed.at(n % Math.max(1, this.closed.length));
    if (!cup) return;
    await this.sent(`/pours/${cup.id}/weigh`, this.weights(cup.good, cup.bad, n, cup.dosedG));
    this.remeltG += n - cup.weighed;
    cup.weighed = n;
  }

  private async leave(baits: number) {
    const { master, recipe } = this.stock;
    const body = { kind: 'given', baitId: master.baitId, colourwayId: recipe.id, baits };
    const before = this.workshop.rows();
    const answer = await this.workshop.post<Rack>('/rack/out', body);
    expect(answer.status < 300).toBe(baits <= this.rack);
    if (answer.status >= 300)
      return expect([answer.body.error.code, this.workshop.rows()]).toEqual(['not-enough-stock', before]);
    this.rack -= baits;
    // One act may take from several cups: a row each. What was taken back stays listed.
    const rows = answer.body.moves.filter((row) => row.kind === 'given' && !this.seen.has(row.id));
    for (const { id, baits: out } of rows) {
      this.left.push({ id, baits: Math.abs(out) });
      this.seen.add(id);
    }
  }

  private async back() {
    const row = this.left.pop();
    if (!row) return;
    await this.sent('/undo', { rowId: row.id });
    this.rack += row.baits;
  }

  private async pack(bags: number) {
    const line = this.stock.order.lines[0];
    const answer = await this.workshop.post<Order>(`/orders/${this.stock.order.id}/pack`, { lineId: line?.id, bags });
    if (answer.status >= 300)
      return expect(answer.body.error.code).toMatch(/^(not-enough-stock|not-cured|more-than-ordered)$/);
    this.bags.push(...answer.body.bags.map((bag) => bag.code).filter((code) => !this.bags.includes(code)));
    this.packed += bags;
    this.rack -= 8 * bags;
  }

  private async unpack() {
    const code = this.bags.pop();
    if (!code) return;
    await this.sent(`/bags/${code}/unpack`, {});
    this.packed--;
    this.rack += 8;
  }

  private async buy(n: number) {
    await this.sent(`/materials/${this.stock.plastisol.id}/lots`, { code: `N${this.workshop.rows()}`, grams: 100 * n });
    this.plastisolG += 100 * n;
  }

  async does(one: Act): Promise<unknown> {
    if (one.does === 'cup') return this.cup(one);
    if (!('n' in one)) return one.does === 'return' ? this.back() : this.unpack();
    if (one.does === 'wait') return this.workshop.waits(one.n);
    return one.does === 'pack' ? this.pack(1 + (one.n % 3)) : this[one.does](one.n);
  }

  async says() {
    const { mold, plastisol, colourant, order } = this.stock;
    const { body: rack } = await this.workshop.get<Rack>('/rack');
    const lying = (grade: string) =>
      rack.items.filter((row) => row.grade === grade).reduce((sum, row) => sum + row.baits, 0);
    const level = async (id: string) => (await this.workshop.get<Material>(`/materials/${id}`)).body.levelG;
    const { body: bins } = await this.workshop.get<Page<Bin>>('/bins');
    const { body: learnt } = await this.workshop.get<Mold>(`/molds/${mold.id}`);
    const { body: now } = await this.workshop.get<Order>(`/orders/${order.id}`);
    const { body: list } = await this.workshop.get<Page<Material>>('/materials');
    return {
      rack: lying('sell'),
      own: lying('own'),
      remeltG: bins.items.reduce((sum, bin) => sum + bin.grams, 0),
      plastisolG: await level(plastisol.id),
      colourG: await level(colourant.id),
      made: learnt.made,
      bad: learnt.rejected,
      packed: now.lines[0]?.packed,
      // The list and the record read the same sums.
      listedG: list.items.find((row) => row.id === plastisol.id)?.levelG,
    };
  }

  ought() {
    const { rack, own, remeltG, plastisolG, colourG, made, bad, packed } = this;
    const near = (value: number) => expect.closeTo(value, 6);
    return {
      rack,
      own,
      remeltG: near(remeltG),
      plastisolG: near(plastisolG),
      colourG: near(colourG),
      made,
      bad,
      packed,
      listedG: near(plastisolG),
    };
  }
}

test('whatever happens of an evening, nothing is counted twice and nothing is lost', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 14 }), async (acts) => {
      const workshop = await TestWorkshop.open();
      try {
        const evening = new Evening(workshop, await stocked(workshop));
        for (const one of acts) await evening.does(one);
        expect(await evening.says()).toEqual(evening.ought());
        // No row lies on the rack with less than nothing in it, and none is promised twice.
        const { body } = await workshop.get<Rack>('/rack');
        expect(body.items.every((row) => row.baits > 0 && row.promised <= row.baits)).toBe(true);
      } finally {
        await workshop.close();
      }
    }),
    { numRuns: 12 },
  );
}, 120_000);
