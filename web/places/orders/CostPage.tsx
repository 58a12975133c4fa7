import { useQueries, useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import type { ColourwayRow } from '../../../contract/colourways.ts';
import { COST_BEGUN, costWish } from '../../../contract/costs.ts';
import { inUse } from '../../../contract/fields.ts';
import type { MoldRow } from '../../../contract/molds.ts';
import { type Told, tried } from '../../../core/failure.ts';
import { baitCost, baitCostSchema, breakEven, COST_PARTS, type CostPart } from '../../../core/plan/cost.ts';
import { layerShares } from '../../../core/plan/layers.ts';
import { percentText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { queries } from '../../api/queries.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { FigureIn } from '../../parts/sheet/In.tsx';
import { Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { costAsked } from './costAsked.ts';

/** What a pack of a bait in a colour costs, at what price it leaves a margin, and after how many all of it pays. */
export function CostPage() {
  const molds = useQuery(queries.molds).data?.items.filter((mold) => mold.retiredAt === null);
  const colours = useQuery(queries.colourways).data;
  if (!molds || !colours) return <Waiting />;
  const mixes = inUse(colours.items);
  const [mold, mix] = [molds[0], mixes[0]];
  return (
    <Page
      title="What it costs"
      tab="What it costs"
      under="A pack by what is in it, what hands take here and what your record rejects. Rejects give their plastic back, not their time."
    >
      {mold && mix ? (
        <Costs molds={molds} mixes={mixes} />
      ) : (
        <Empty
          say="A cost needs a mold and a colour."
          then="Add a mold you have, and write one recipe."
          to="/molds/new"
          action="Add a mold"
        />
      )}
    </Page>
  );
}

const PARTS: Record<CostPart, [word: string, colour: string]> = {
  plasticMinor: ['plastic and colour', 'var(--liquid)'],
  piecesMinor: ['bag and what goes with it', 'var(--edge)'],
  labourMinor: ['hands', 'var(--heat)'],
  moldMinor: ['mold', 'var(--rest)'],
};

function Costs({ molds, mixes }: { molds: MoldRow[]; mixes: ColourwayRow[] }) {
  const { money, say, workshop, measures } = useTaste();
  const [moldId, setMold] = useState(molds[0]?.id ?? '');
  const [mixId, setMix] = useState(mixes[0]?.id ?? '');
  const mold = molds.find(({ id }) => id === moldId) as MoldRow;
  const mix = mixes.find(({ id }) => id === mixId) as ColourwayRow;
  const materials = useQuery(queries.materials).data?.items ?? [];
  const baits = useQuery(queries.baits).data?.items ?? [];
  const hands = useQuery(queries.hands()).data?.items.find((one) => one.moldId === moldId);
  const recipes = useQueries({ queries: mix.layers.map(({ recipeId }) => queries.recipe(recipeId)) });
  const plastics = inUse(materials).filter(({ kind }) => kind === 'plastisol');
  const [plasticId, setPlastic] = useState('');
  const plastic = plastics.find(({ id }) => id === plasticId) ?? plastics[0];
  const bag = inUse(materials).find(({ kind }) => kind === 'bags');
  const packWith = useQuery(queries.packWith).data;
  const packTime = packWith?.time;
  const sheet = useSheet({ schema: costWish, keep: 'cost', seen: COST_BEGUN });
  const bait = baits.find(({ id }) => id === mold.baitId);
  const shares = tried(() => layerShares(mix.layers, mold));
  const known = recipes.map(({ data }) => data?.revision);
  const whole = sheet.faults.length === 0 && plastic && bait && known.every((one) => one !== undefined);
  const asked =
    whole && shares.value
      ? costAsked({
          mold,
          perPack: bait.packCount,
          melts: known.map((revision, at) => ({
            share: shares.value?.[at] ?? 0,
            items: revision?.items ?? [],
            basisMl: revision?.basisMl ?? 1,
          })),
          plastic,
          materials,
          bag,
          beside: packWith?.items ?? [],
          hands,
          packS: packTime?.packS ?? workshop.packS,
          wish: sheet.values,
          measures,
        })
      : null;
  const found = asked ? tried(() => baitCost(check(baitCostSchema, asked.input))) : null;
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-12 gap-y-8">
      <Sheet of={sheet} by={{ error: null, isPending: false }} onSend={() => {}} className="flex flex-col gap-5">
        <div className="grid grid-cols-2 gap-4">
          <SelectField
            label="Bait, from the mold"
            value={moldId}
            options={molds.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setMold}
          />
          <SelectField
            label="Colour"
            value={mixId}
            options={mixes.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setMix}
          />
          {plastics.length > 0 && (
            <SelectField
              label="Plastic"
              value={plastic?.id ?? ''}
              options={plastics.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={setPlastic}
            />
          )}
          <FigureIn at="wagePerHourMinor" hint="0: it is told as money an hour" />
          <FigureIn at="marginFraction" starts />
          <FigureIn at="wasteFraction" starts />
          <FigureIn at="moldPriceMinor" hint="0: not counted" />
          <FigureIn at="moldShots" starts />
        </div>
        <h2>When it pays</h2>
        <div className="grid grid-cols-2 gap-4">
          <FigureIn at="startUpMinor" />
          <FigureIn at="boughtPackMinor" />
          <FigureIn at="packCount" starts />
          <FigureIn at="usableCount" starts />
        </div>
      </Sheet>
      <div className="flex flex-col gap-6">
        {!plastic && <p className="warn font-bold">No plastic is in the store yet: put one there, with its price.</p>}
        {shares.refused && <p className="heat font-bold">{say(shares.refused)}</p>}
        {found?.refused && <p className="heat font-bold">{say(found.refused)}</p>}
        {found?.value && bait && asked && (
          <>
            <CostTold
              cost={found.value}
              perPack={bait.packCount}
              priceMinor={bait.priceMinor}
              rejectFraction={asked.input.rejectFraction ?? 0}
              unpriced={asked.unpriced}
            />
            <Pays
              ownMinor={Math.round(found.value.costExactMinor / bait.packCount)}
              wish={sheet.values}
              money={money}
              say={say}
            />
          </>
        )}
      </div>
    </div>
  );
}

interface ToldProps {
  cost: ReturnType<typeof baitCost>;
  perPack: number;
  /** What a pack is sold for now. */
  priceMinor: number | null;
  rejectFraction: number;
  unpriced: string[];
}

function CostTold({ cost, perPack, priceMinor, rejectFraction, unpriced }: ToldProps) {
  const { money } = useTaste();
  const most = Math.max(cost.costMinor, 1);
  // What nobody knows or counts is no nought.
  const open: CostPart[] = COST_PARTS.filter((part) => cost[part] === 0 && part !== 'labourMinor');
  const margin = priceMinor ? (priceMinor - cost.costExactMinor) / priceMinor : null;
  return (
    <section className="flex flex-col gap-3" aria-label="The cost">
      <p className="text-2xl">
        A pack of {perPack} costs <b className="figure">{money(cost.costMinor)}</b>,{' '}
        <span className="figure">{money(Math.round(cost.costExactMinor / perPack))}</span> a bait.
      </p>
      <svg viewBox="0 0 400 34" className="w-full max-w-xl" role="img" aria-label="Its parts">
        {
          COST_PARTS.reduce<{ x: number; drawn: ReactNode[] }>(
            ({ x, drawn }, part) => {
              const wide = (398 * cost[part]) / most;
              return {
                x: x + wide,
                drawn: [...drawn, <rect key={part} x={1 + x} y={8} width={wide} height={18} fill={PARTS[part][1]} />],
              };
            },
            { x: 0, drawn: [] },
          ).drawn
        }
        <line x1={1} x2={399} y1={26} y2={26} stroke="var(--edge)" />
        {Array.from({ length: 11 }, (_, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: marks of a scale
          <line key={n} x1={1 + n * 39.8} x2={1 + n * 39.8} y1={n % 5 === 0 ? 2 : 8} y2={26} stroke="var(--edge)" />
        ))}
      </svg>
      <dl className="grid grid-cols-[auto_auto_1fr] gap-x-4 gap-y-1 items-baseline">
        {COST_PARTS.map((part) => (
          <div key={part} className="contents">
            <dt>
              <span
                className="inline-block w-3.5 h-3.5 mr-2 border border-[var(--ink)]"
                style={{ background: PARTS[part][1] }}
              />
              {PARTS[part][0]}
            </dt>
            <dd className="figure text-right">{open.includes(part) ? '—' : money(cost[part])}</dd>
            <dd className="soft text-sm">
              {open.includes(part) ? (part === 'moldMinor' ? 'not counted' : 'not known') : ''}
            </dd>
          </div>
        ))}
      </dl>
      <p className="text-lg">
        For the margin it sells at <b className="figure">{money(cost.priceMinor)}</b>
        {cost.perHourMinor !== undefined && (
          <>
            ; before any wage an hour brings <b className="figure">{money(Math.round(cost.perHourMinor))}</b>
          </>
        )}
        .
      </p>
      {priceMinor !== null && margin !== null && (
        <p className={margin < 0 ? 'heat font-bold' : ''}>
          It is sold at {money(priceMinor)} now:{' '}
          {margin < 0
            ? `${money(cost.costMinor - priceMinor)} under what it costs.`
            : `a margin of ${percentText(Math.round(margin * 100) / 100)}.`}
        </p>
      )}
      {unpriced.length > 0 && (
        <p className="warn font-bold">Without {unpriced.join(', ')}: no price is known yet, the cost is higher.</p>
      )}
      <p className="soft text-sm">
        {percentText(Math.round(rejectFraction * 1000) / 1000)} of this mold’s baits were rejected so far. Power, rent
        and the way to the post are not in it.
      </p>
    </section>
  );
}

interface PaysProps {
  ownMinor: number;
  wish: typeof COST_BEGUN;
  money(minor: number): string;
  say(told: Told): string;
}

function Pays({ ownMinor, wish, money, say }: PaysProps) {
  const { startUpMinor, boughtPackMinor, packCount, usableCount } = wish;
  if (boughtPackMinor === 0) return null;
  if (usableCount > packCount) return <p className="heat font-bold">More are usable than are in the pack.</p>;
  const { value, refused } = tried(() =>
    breakEven({ startUpMinor, boughtPackMinor, packCount, usableCount, ownMinor }),
  );
  return (
    <section aria-label="When it pays" className="text-lg">
      {refused ? (
        <p className="heat font-bold">{say(refused)}</p>
      ) : (
        value && (
          <p>
            A usable bought one costs {money(Math.round(value.boughtEachMinor))}, your own {money(ownMinor)}:{' '}
            {startUpMinor > 0 ? (
              <>
                what you began with is earned back after <b className="figure">{value.baits}</b> baits.
              </>
            ) : (
              'each saves the difference.'
            )}
          </p>
        )
      )}
    </section>
  );
}
