import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { closeBody, type Pour } from '../../../contract/pours.ts';
import { type Told, tried } from '../../../core/failure.ts';
import { balanceOf } from '../../../core/yield/counts.ts';
import { countGrades } from '../../../core/yield/grades.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { gradesText } from '../../parts/grades.ts';
import { ChoiceIn, FigureIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

interface Weighed {
  cookedG: number | null;
  goodG: number | null;
  rejectG: number | null;
  returnedG: number | null;
  /** Null: nobody weighed it. */
  residueG: number | null;
  degassedG: number | null;
  /** Null: the colour's own bin. */
  binId: string | null;
  /** Null: with the rejects; `kept`, or another open cup. */
  leftTo: string | null;
  /** The other cups of the same shots. */
  others: ({ pourId: string } & Pick<Weighed, 'cookedG' | 'returnedG' | 'residueG' | 'degassedG'>)[];
}

/** Baits and leftovers that were not put on the scale are none; what was lost is not known then. */
const bodyOf = ({ cookedG, goodG, rejectG, returnedG, residueG, degassedG, binId, leftTo, others }: Weighed) => ({
  ...(binId === null ? {} : { binId }),
  ...(leftTo === null ? {} : { leftTo }),
  cookedG,
  goodG: goodG ?? 0,
  rejectG: rejectG ?? 0,
  returnedG: returnedG ?? 0,
  residueG,
  degassedG,
  ...(others.length > 0
    ? {
        others: others.map((other) => ({
          ...other,
          returnedG: other.returnedG ?? 0,
        })),
      }
    : {}),
});

/** The balance of what is typed so far, or why there is none. */
function balanced(weighed: Weighed): { figures?: ReturnType<typeof balanceOf>; refused?: Told } {
  const { others = [], ...own } = bodyOf(weighed);
  const cups = [own, ...others].map((cup) => ({ ...cup, cookedG: cup.cookedG ?? 0 }));
  if (cups.some((cup) => cup.cookedG === 0)) return {};
  const { value, refused } = tried(() => balanceOf(own, cups));
  return value ? { figures: value } : { refused };
}

/** What is in a cup as far as it was weighed in, else as planned, with what was dosed. */
function inCupG({ parts, plan, dosed }: Pour): number {
  const plastic = parts.reduce((sum, part) => sum + (part.weighedG ?? part.plannedG), 0);
  return Math.round((parts.length > 0 ? plastic : plan.cookG) + dosed.g);
}

interface Props {
  pour: Pour;
  open: boolean;
  onDone?: () => void;
}

/** The scale's figures at the end of a cup, and of the cups that the same baits were drawn from. */
export function CloseForm(props: Props) {
  const { pour } = props;
  // A cup that stands alone waits for no answer.
  const several =
    pour.balance === null &&
    (pour.cups.length > 1 ||
      pour.lent.shots > 0 ||
      pour.shots.some((shot) => shot.parts.some((part) => part.pourId !== pour.id)));
  const linked = useQuery({ ...queries.linked(pour.id), enabled: several });
  const others = useQueries({
    queries: (linked.data?.items ?? []).filter((cup) => cup.id !== pour.id).map((cup) => queries.pour(cup.id)),
  });
  const whole = others.flatMap((one) => (one.data ? [one.data] : []));
  if (several && (!linked.data || whole.length < others.length)) return null;
  return <Weighing {...props} others={whole} />;
}

/** What nobody can account for shows while the figures are typed. */
function Weighing({ pour, open, onDone, others: beside }: Props & { others: Pour[] }) {
  const taste = useTaste();
  const { text } = taste;
  const before = pour.balance;
  // Salt, flake and colour lie on the scale with the plastisol.
  const plannedG = inCupG(pour);
  const weighedIn = pour.parts.length > 0 && pour.parts.every((part) => part.weighedG !== null);
  const from = weighedIn ? 'as weighed in' : 'as planned until weighed';
  const [begun] = useState<Weighed>({
    cookedG: before?.cookedG ?? plannedG,
    goodG: before?.goodG ?? null,
    rejectG: before?.rejectG ?? null,
    returnedG: before?.returnedG ?? null,
    residueG: before?.residueG ?? null,
    degassedG: before?.degassedG ?? null,
    binId: null,
    leftTo: null,
    others: beside.map((cup) => ({
      pourId: cup.id,
      cookedG: inCupG(cup),
      returnedG: null,
      residueG: null,
      degassedG: null,
    })),
  });
  const sheet = useSheet<Weighed>({
    schema: closeBody,
    keep: `pour/${pour.id}/close`,
    seen: begun,
    body: bodyOf,
  });
  const { cookedG, goodG } = sheet.values;
  const together = [pour, ...beside];
  const marks = together.flatMap((cup) => cup.shots.flatMap((shot) => shot.marks));
  const made = together.reduce(
    (total, cup) =>
      cup.shots.reduce(
        (sum, shot) => sum + (cup.molds.find((mold) => mold.moldId === shot.moldId)?.cavities ?? 0),
        total,
      ),
    0,
  );
  const counts = countGrades(marks);
  const looked = counts.sell + counts.own + counts.remelt;
  const close = useWrite<Pour>(
    () => ({ path: `/pours/${pour.id}/${before ? 'weigh' : 'close'}`, body: bodyOf(sheet.values) }),
    () => {
      sheet.done();
      onDone?.();
    },
  );
  const { figures, refused } = balanced(sheet.values);
  return (
    <section className="sheet p-5 no-print" id="close">
      <h2 className="text-2xl mb-1">
        {before ? 'Weighed again' : beside.length > 0 ? 'Close the cups' : 'Close the cup'}
      </h2>
      {beside.length > 0 && (
        <p className="mb-2">
          These baits were drawn from {together.map((cup) => `${cup.recipeName} ${cup.code}`).join(' and ')}: baits and
          rejects are weighed once for all, what is left of each cup alone.
        </p>
      )}
      <p className="mb-4">
        <b className="figure">{gradesText(counts)}</b> of <b className="figure">{made}</b> made.
        {made > looked && <b className="warn"> {made - looked} are not looked at yet.</b>}
      </p>
      <Sheet
        of={sheet}
        by={{ error: close.error, isPending: close.isPending || refused !== undefined }}
        onSend={() => close.mutate()}
        className="grid grid-cols-2 sm:grid-cols-3 xl:grid-cols-5 gap-4 items-start"
      >
        <FigureIn
          at="cookedG"
          isDefault={!before && !weighedIn && cookedG === plannedG}
          hint={
            pour.dosed.g >= 1
              ? `${from}, with ${text(pour.dosed.g, 'mass')} dosed${pour.dosed.byDefault.length > 0 ? ` (${pour.dosed.byDefault.join(', ')} by a default)` : ''}`
              : from
          }
        />
        <FigureIn at="goodG" autoFocus={open} {...(counts.own > 0 ? { hint: 'own water with them' } : {})} />
        <FigureIn at="rejectG" />
        <FigureIn at="returnedG" />
        <FigureIn at="residueG" hint="empty: not known" />
        <FigureIn at="degassedG" hint="frothed over; empty: not known" />
        {!before && <WhereTo pour={pour} beside={beside} />}
        <OtherCups cups={beside} />
        <div className="mt-5 col-span-full">
          <Send>{before ? 'Keep' : beside.length > 0 ? `Close all ${together.length} cups` : 'Close'}</Send>
        </div>
      </Sheet>
      {refused && (
        <p className="heat font-bold mt-2" role="alert">
          {taste.say(refused)}
        </p>
      )}
      {figures && goodG !== null && <Balanced figures={figures} />}
    </section>
  );
}

/** Where the rejects go, and what is left in the cup. */
function WhereTo({ pour, beside }: { pour: Pour; beside: Pour[] }) {
  const bins = useQuery(queries.bins).data?.items ?? [];
  const others = bins.filter((bin) => bin.awayAt === null && bin.colourwayId !== pour.colourwayId);
  const elsewhere = pour.evening.cups.filter(
    (cup) => cup.closedAt === null && ![pour, ...beside].some((one) => one.id === cup.id),
  );
  return (
    <>
      <ChoiceIn
        at="binId"
        label={beside.length > 0 ? 'Rejects into the bin' : 'Into the bin'}
        className="col-span-2 sm:col-span-1 xl:col-span-2"
        options={[
          { value: '', label: `of ${pour.colourwayName}` },
          ...others.map((bin) => ({ value: bin.id, label: bin.name })),
        ]}
      />
      <ChoiceIn
        at="leftTo"
        className="col-span-2 xl:col-span-2"
        options={[
          { value: '', label: beside.length > 0 ? `into the bin of ${pour.recipeName}` : 'into the bin too' },
          { value: 'kept', label: 'kept apart, for another evening' },
          ...elsewhere.map((cup) => ({ value: cup.id, label: `into the cup ${cup.code}, ${cup.recipeName}` })),
        ]}
      />
    </>
  );
}

/** What is left of each other cup, weighed alone. */
function OtherCups({ cups }: { cups: Pour[] }) {
  return (
    <>
      {cups.map((cup, i) => (
        <fieldset
          key={cup.id}
          className="col-span-full grid grid-cols-2 sm:grid-cols-[160px_repeat(4,1fr)] gap-4 items-start"
        >
          <legend className="sr-only">
            {cup.code} {cup.recipeName}
          </legend>
          <p className="sm:mt-7 flex gap-2 items-center">
            <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: cup.hex }} />
            <b>{cup.recipeName}</b> <span className="figure soft">{cup.code}</span>
          </p>
          <FigureIn at={`others.${i}.cookedG`} />
          <FigureIn at={`others.${i}.returnedG`} />
          <FigureIn at={`others.${i}.residueG`} />
          <FigureIn at={`others.${i}.degassedG`} />
        </fieldset>
      ))}
    </>
  );
}

/** The yield so far, and what nobody can account for. */
function Balanced({ figures }: { figures: ReturnType<typeof balanceOf> }) {
  const { text } = useTaste();
  return (
    <p className="mt-2">
      Yield <b className="figure text-xl">{(figures.yieldFraction * 100).toFixed(1)} %</b>, unaccounted{' '}
      <b className="figure text-xl">{text(figures.unaccountedG, 'mass')}</b> (
      {(figures.unaccountedFraction * 100).toFixed(1)} %)
    </p>
  );
}
