import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import * as v from 'valibot';
import { CUP_BOUNDS_C, cupC } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Fault, Heat, Pour, PourMold, Shot } from '../../../contract/pours.ts';
import { usual } from '../../../core/defaults.ts';
import { cupWindow } from '../../../core/heat/window.ts';
import { cupTotals } from '../../../core/plastisol/cup.ts';
import { doseOf } from '../../../core/plastisol/recipe.ts';
import { cupText, meaning, nextOf } from '../../../core/process/next.ts';
import { convert } from '../../../core/units/convert.ts';
import { useNow } from '../../api/now.ts';
import { tap, tapRow, useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';
import { Missing, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { applyTheme } from '../../parts/theme.ts';
import { DoseDialog, FaultDialog, UnreadDialog } from './BenchDialogs.tsx';
import { CupCurve } from './CupCurve.tsx';
import { type Cup, cupOf, foldTaps } from './cupState.ts';
import { Keypad } from './Keypad.tsx';
import { Lane } from './Lane.tsx';
import { NextCard } from './NextCard.tsx';

export function Bench() {
  const { id = '' } = useParams();
  const pour = useQuery(queries.pour(id));
  const materials = useQuery(queries.materials);
  useBenchRoom();
  if (pour.error) return <Missing error={pour.error} back="All pours" backTo="/pours" />;
  if (!pour.data || !materials.data) return <Waiting />;
  return <AtTheCup key={pour.data.id} pour={pour.data} materials={materials.data.items} />;
}

/** Night colours and a screen that stays awake for as long as somebody stands here. */
function useBenchRoom() {
  useEffect(() => {
    applyTheme('night');
    let here = true;
    let lock: WakeLockSentinel | undefined;
    // A browser takes the lock away when the page is hidden: it is asked for again when somebody looks.
    const wake = async () => {
      if (document.visibilityState !== 'visible') return;
      // Refused on a low battery; the bench works without it.
      const held = await navigator.wakeLock?.request('screen').catch(() => undefined);
      if (here) lock = held;
      else void held?.release();
    };
    void wake();
    document.addEventListener('visibilitychange', wake);
    return () => {
      here = false;
      document.removeEventListener('visibilitychange', wake);
      applyTheme();
      void lock?.release();
    };
  }, []);
}

const HEAT_KINDS = [
  { value: 'cook', label: 'Cooked' },
  { value: 'reheat', label: 'Reheated' },
  { value: 'reading', label: 'Reading' },
];

function AtTheCup({ pour, materials }: { pour: Pour; materials: Material[] }) {
  const taps = useTaps();
  const nowMs = useNow();
  const navigate = useNavigate();
  const taste = useTaste();
  const [pad, setPad] = useState<Heat['kind'] | null>(null);
  const [dosing, setDosing] = useState(false);
  const [unread, setUnread] = useState<PourMold | null>(null);
  const [faulting, setFaulting] = useState<{ shot: Shot; mold: PourMold; cavity: number } | null>(null);
  const cup = cupOf(pour, nowMs, foldTaps(pour, taps, materials));
  const next = nextOf(cup, (c) => taste.text(c, 'temperature'));
  // Of what is next, where that is about the heat; while all wait, what all molds share.
  const window = 'window' in next ? next.window : cupWindow(cup.molds, cup.limits);
  const last = cup.heats.at(-1);
  const base = `/pours/${pour.id}`;

  const drawn = (mold: PourMold) => tapRow(`${base}/shots`, { moldId: mold.moldId }, `shot of ${mold.name}`, pour.id);
  const draw = (mold: PourMold) => (cup.heats.length === 0 ? setUnread(mold) : drawn(mold));
  const mark = (shot: Shot, marks: { cavity: number; result: 'good' | 'bad' | 'unmarked'; reason?: Fault }[]) =>
    tap(`${base}/shots/${shot.id}/marks`, { marks }, `marks of a shot`, pour.id);
  const restGood = (shot: Shot, mold: PourMold) => {
    const known = new Set(shot.marks.filter((row) => row.result !== 'unmarked').map((row) => row.cavity));
    const rest = Array.from({ length: mold.cavities }, (_, i) => i + 1).filter((cavity) => !known.has(cavity));
    mark(
      shot,
      rest.map((cavity) => ({ cavity, result: 'good' })),
    );
  };
  const asWritten = () => {
    for (const item of pour.plan.items) {
      tapRow(
        `/ledgers/${pour.ledgerId}/doses`,
        { materialId: item.materialId, ...doseOf(item) },
        `${item.materialName} as written`,
        pour.id,
      );
    }
    setDosing(false);
  };
  const lastAct = [...cup.heats, ...cup.shots].reduce<Heat | Shot | undefined>(
    (latest, act) => (latest && latest.at > act.at ? latest : act),
    undefined,
  );
  const undo = () => lastAct && tapRow(`${base}/undo`, { rowId: lastAct.id }, 'undo', pour.id);
  const act = () => {
    if (next.do === 'heat') setPad(next.kind);
    else if (next.do === 'dose') setDosing(true);
    else if (next.do === 'shot') draw(next.mold);
    else if (next.do === 'look') restGood(next.shot, next.mold);
    else if (next.do === 'close') navigate(`${base}?close`);
  };
  const curve = <CupCurve heats={cup.heats} shots={cup.shots} {...window} limits={cup.limits} nowMs={nowMs} />;
  if (pour.closedAt) {
    return (
      <div className="p-10 flex flex-col gap-4 items-start">
        <h1>{pour.recipeName} is closed.</h1>
        <Link to={base} className="btn btn-primary bench-target">
          Its sheet
        </Link>
      </div>
    );
  }
  return (
    <div className="h-full flex flex-col">
      <div className="flex-1 min-h-0 overflow-auto lg:overflow-visible flex flex-col lg:grid lg:grid-cols-[minmax(380px,460px)_minmax(0,1fr)] gap-4 lg:gap-6 px-3 sm:px-6 pt-3 sm:pt-4">
        <section className="flex flex-col lg:min-h-0" aria-label="The cup">
          <button
            type="button"
            className="text-left flex items-start"
            onClick={() => setPad('reading')}
            aria-label={`Cup temperature ${last ? taste.text(last.c, 'temperature') : 'not read yet'}; type a new one`}
          >
            <span
              className="huge"
              style={{ color: last && (last.c < window.lowC || last.c > window.highC) ? 'var(--warn)' : undefined }}
            >
              {last ? taste.parts(last.c, 'temperature').figure : '—'}
            </span>
            <span className="figure text-5xl soft mt-1 ml-1">{taste.unit('temperature')}</span>
          </button>
          <p className="text-lg mt-2">
            <span
              className="inline-block w-4 h-4 rounded-full border border-current align-[-2px] mr-2"
              style={{ background: pour.hex }}
            />
            <b>{pour.recipeName}</b> <span className="figure soft">{pour.code}</span>
            {/* One text, as the server drew it: the eye finds nothing new. */}
            <span className="soft">{` · ${cupText(taste.text(pour.cookMl, 'volume'), cup)}`}</span>
          </p>
          <div className="hidden lg:block">{curve}</div>
          <div className="flex gap-2 mt-2 lg:mt-auto pb-1 lg:pb-3 flex-wrap">
            <button type="button" className="btn btn-line bench-target" onClick={() => setPad('reading')}>
              {taste.unit('temperature')}
            </button>
            <button type="button" className="btn btn-line bench-target" onClick={() => setDosing(true)}>
              Dose
            </button>
            <button type="button" className="btn btn-line bench-target" disabled={!lastAct} onClick={undo}>
              Undo{/* In the hand its row has room for one word. */}
              <span className="sr-only sm:not-sr-only">
                {' '}
                {lastAct ? ('moldId' in lastAct ? 'shot' : 'reading') : ''}
              </span>
            </button>
            <Link to={base} className="btn btn-ghost bench-target border border-[var(--edge)]">
              Sheet
            </Link>
          </div>
        </section>
        <section className="flex flex-col gap-3 lg:min-h-0 lg:overflow-auto pb-3" aria-label="Molds">
          {cup.molds.map((mold) => (
            <Lane
              key={mold.moldId}
              mold={mold}
              cup={cup}
              active={(next.do === 'shot' || next.do === 'look') && next.mold.moldId === mold.moldId}
              hex={pour.hex}
              onDraw={() => draw(mold)}
              onTap={(shot, cavity) => setFaulting({ shot, mold, cavity })}
              onRest={(shot) => restGood(shot, mold)}
            />
          ))}
          <InTheCup cup={cup} />
          {/* In the hand the molds come first. */}
          <div className="lg:hidden">{curve}</div>
        </section>
      </div>
      <NextCard next={next} means={meaning(next, cup)} onAct={act} />
      <Keypad
        open={pad !== null}
        title="Cup temperature, after stirring"
        unit={taste.unit('temperature')}
        kinds={HEAT_KINDS}
        startKind={pad ?? 'reading'}
        onClose={() => setPad(null)}
        onEnter={(value, kind) => {
          const c = convert({
            value,
            from: taste.taste.temperature,
            to: 'C',
            dropsPerMl: usual('dropsPerMl'),
            measures: [],
          }).value;
          if (!v.is(cupC, c)) {
            const [low, high] = CUP_BOUNDS_C.map((bound) => taste.text(bound, 'temperature'));
            return `${value} ${taste.unit('temperature')} is no cup: it lies between ${low} and ${high}. Type it again.`;
          }
          tapRow(`${base}/heats`, { kind, c }, `${value} ${taste.unit('temperature')}`, pour.id);
          setPad(null);
          return null;
        }}
      />
      <DoseDialog
        open={dosing}
        onClose={() => setDosing(false)}
        pour={pour}
        cup={cup}
        materials={materials}
        onAsWritten={asWritten}
      />
      <UnreadDialog
        mold={unread}
        onClose={() => setUnread(null)}
        onRead={() => {
          setUnread(null);
          setPad('cook');
        }}
        onDrawn={() => {
          if (unread) drawn(unread);
          setUnread(null);
        }}
      />
      <FaultDialog
        at={faulting}
        onClose={() => setFaulting(null)}
        onMark={(result, reason) => {
          if (faulting) mark(faulting.shot, [{ cavity: faulting.cavity, result, ...(reason ? { reason } : {}) }]);
          setFaulting(null);
        }}
      />
    </div>
  );
}

/** What the next shot is drawn from: the doses as they add up now. */
function InTheCup({ cup }: { cup: Cup }) {
  const totals = cupTotals(cup.doses);
  const name = (materialId: string) => cup.doses.find((dose) => dose.materialId === materialId)?.materialName ?? '';
  return (
    <p className="px-3.5 text-lg">
      <b>In the cup: </b>
      {totals.length === 0
        ? 'plain, nothing dosed yet'
        : totals.map((total, index) => (
            <span key={`${total.materialId} ${total.unit}`}>
              {index > 0 && ', '}
              <b className="figure">{Number(total.amount.toFixed(2))}</b>{' '}
              {total.unit === 'drop' && total.amount !== 1 ? 'drops' : total.unit} {name(total.materialId)}
            </span>
          ))}
    </p>
  );
}
