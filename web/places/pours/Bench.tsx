import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Material } from '../../../contract/materials.ts';
import { FAULTS, type Fault, type Heat, type Pour, type PourMold, type Shot } from '../../../contract/pours.ts';
import { cupTotals } from '../../../core/plastisol/cup.ts';
import { doseOf } from '../../../core/plastisol/recipe.ts';
import { convert } from '../../../core/units/convert.ts';
import { durationText } from '../../../core/units/show.ts';
import { useNow } from '../../api/now.ts';
import { tap, tapRow, useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';
import { CavityMap, FAULT_WORDS } from '../../parts/CavityMap.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Missing } from '../../shell/NotFound.tsx';
import { useDialog } from '../../shell/shortcuts.tsx';
import { applyTheme } from '../../shell/theme.ts';
import { DoseBoard } from '../colours/DoseBoard.tsx';
import { ScaledRow } from '../colours/ScaledRecipe.tsx';
import { CupCurve } from './CupCurve.tsx';
import { foldTaps } from './cupState.ts';
import { Keypad } from './Keypad.tsx';
import { type Cup, nextOf, shotsOf, unmarkedIn, windowOf } from './next.ts';

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
    let lock: WakeLockSentinel | undefined;
    // Refused on a low battery or a hidden page; the bench works without it.
    navigator.wakeLock
      ?.request('screen')
      .then((held) => {
        lock = held;
      })
      .catch(() => undefined);
    return () => {
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
  const [faulting, setFaulting] = useState<{ shot: Shot; mold: PourMold; cavity: number } | null>(null);
  const cup: Cup = { pour, nowMs, ...foldTaps(pour, taps, materials) };
  const next = nextOf(cup, (c) => taste.text(c, 'temperature'));
  const window = windowOf(pour.molds);
  const last = cup.heats.at(-1);
  const base = `/pours/${pour.id}`;
  const limit = pour.recipeItems
    .filter((item) => item.limitC !== null)
    .sort((a, b) => (a.limitC ?? 0) - (b.limitC ?? 0))[0];

  const draw = (mold: PourMold) => tapRow(`${base}/shots`, { moldId: mold.moldId }, `shot of ${mold.name}`, pour.id);
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
  const lastAct = [...cup.heats, ...cup.shots].sort((a, b) => a.at.localeCompare(b.at)).at(-1);
  const undo = () => lastAct && tapRow(`${base}/undo`, { rowId: lastAct.id }, 'undo', pour.id);
  const act = () => {
    if (next.do === 'heat') setPad(next.kind);
    else if (next.do === 'dose') setDosing(true);
    else if (next.do === 'shot') draw(next.mold);
    else if (next.do === 'look') restGood(next.shot, next.mold);
    else if (next.do === 'close') navigate(`${base}?close`);
  };
  const ACT_WORDS = { heat: 'Type it', dose: 'Dose', shot: 'Drawn', look: 'Rest good', close: 'Weigh', wait: '' };
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
      <div className="flex-1 min-h-0 grid grid-cols-[minmax(400px,460px)_1fr] gap-6 px-6 pt-4">
        <section className="flex flex-col min-h-0" aria-label="The cup">
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
            <span className="soft">
              {' '}
              · {taste.text(pour.cookMl, 'volume')}
              {last && ` · read ${durationText((nowMs - Date.parse(last.at)) / 1000)} ago`}
              {cup.heats.filter((heat) => heat.kind !== 'reading').length > 1 &&
                ` · heat ${cup.heats.filter((heat) => heat.kind !== 'reading').length}`}
            </span>
          </p>
          <CupCurve
            heats={cup.heats}
            shots={cup.shots}
            {...window}
            limit={limit ? { name: limit.materialName, c: limit.limitC ?? 0 } : undefined}
            nowMs={nowMs}
          />
          <div className="flex gap-2 mt-auto pb-3 flex-wrap">
            <button type="button" className="btn btn-line bench-target" onClick={() => setPad('reading')}>
              {taste.unit('temperature')}
            </button>
            <button type="button" className="btn btn-line bench-target" onClick={() => setDosing(true)}>
              Dose
            </button>
            <button type="button" className="btn btn-line bench-target" disabled={!lastAct} onClick={undo}>
              Undo {lastAct ? ('moldId' in lastAct ? 'shot' : 'reading') : ''}
            </button>
            <Link to={base} className="btn btn-ghost bench-target border border-[var(--edge)]">
              Sheet
            </Link>
          </div>
        </section>
        <section className="flex flex-col gap-3 min-h-0 overflow-auto pb-3" aria-label="Molds">
          {pour.molds.map((mold) => (
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
        </section>
      </div>
      <section
        className={`shrink-0 flex items-center gap-6 px-6 py-4 min-h-[124px] ${next.do === 'wait' ? 'bg-[var(--sheet)]' : 'bg-[var(--heat)] text-[#1a0d06]'}`}
        aria-live="polite"
        aria-label="Next"
      >
        <div className="flex-1">
          <h1 className="text-4xl">{next.say}</h1>
          <p className="text-lg font-semibold mt-1">{next.why}</p>
        </div>
        {next.do !== 'wait' && (
          <button type="button" className="btn h-24 w-60 text-3xl border-0 bg-[#1a0d06] text-white" onClick={act}>
            {ACT_WORDS[next.do]}
          </button>
        )}
      </section>
      <Keypad
        open={pad !== null}
        title="Cup temperature, after stirring"
        unit={taste.unit('temperature')}
        kinds={HEAT_KINDS}
        startKind={pad ?? 'reading'}
        onClose={() => setPad(null)}
        onEnter={(value, kind) => {
          const c = convert({ value, from: taste.taste.temperature, to: 'C', dropsPerMl: 20, measures: [] }).value;
          tapRow(`${base}/heats`, { kind, c }, `${value} ${taste.unit('temperature')}`, pour.id);
          setPad(null);
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

interface LaneProps {
  mold: PourMold;
  cup: Cup;
  active: boolean;
  hex: string;
  onDraw(): void;
  onTap(shot: Shot, cavity: number): void;
  onRest(shot: Shot): void;
}

/** One mold: where it stands, its cavities to be tapped, its shots on a scale. */
function Lane({ mold, cup, active, hex, onDraw, onTap, onRest }: LaneProps) {
  const shots = shotsOf(cup, mold.moldId);
  const shot = shots.at(-1);
  const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - cup.nowMs) / 1000 : 0;
  const open = shot && unmarkedIn(shot, mold) > 0;
  const cooling = open && opensS > 0;
  const done = shots.length >= mold.shots && !open;
  // One mold has the room to itself; several share it. Never under what a glove can hit.
  const across = Math.min(mold.cavities, Math.max(mold.columns, 4));
  const cellPx = Math.max(76, Math.min(cup.pour.molds.length === 1 ? 144 : 96, Math.floor(460 / across) - 8));
  const state = cooling
    ? ['cooling, by a default', durationText(opensS)]
    : open
      ? ['open it', 'now']
      : done
        ? ['all shots', 'done']
        : ['empty', 'next'];
  return (
    <article
      className="sheet p-3.5 flex flex-col gap-2"
      style={active ? { outline: '4px solid var(--heat)', outlineOffset: -4 } : undefined}
    >
      <div className="flex items-start gap-4">
        <div className="flex-1 min-w-0">
          <h2 className="truncate">{mold.name}</h2>
          <p className="soft">{shot ? `shot ${shots.length} of ${mold.shots}` : `${mold.shots} shots to draw`}</p>
          <Graduated
            value={shots.length}
            most={Math.max(mold.shots, shots.length)}
            label={`${shots.length} of ${mold.shots} shots`}
            widthPx={150}
            colour={active ? 'var(--heat)' : 'var(--rest)'}
          />
        </div>
        <p className="text-right">
          <span
            className="figure text-3xl block leading-none"
            style={{ color: open && !cooling ? 'var(--heat)' : cooling ? 'var(--rest)' : undefined }}
          >
            {state[1]}
          </span>
          <span className="soft">{state[0]}</span>
        </p>
      </div>
      {shot && (
        <CavityMap
          cavities={mold.cavities}
          columns={across}
          shape={mold.shape}
          marks={shot.marks}
          hex={hex}
          onTap={(cavity) => onTap(shot, cavity)}
          cellPx={cellPx}
        />
      )}
      <div className="flex gap-2">
        {open && (
          <button type="button" className="btn btn-line bench-target" onClick={() => onRest(shot)}>
            Rest good
          </button>
        )}
        {!active && (
          <button type="button" className="btn btn-ghost border border-[var(--edge)] bench-target" onClick={onDraw}>
            Shot drawn
          </button>
        )}
      </div>
    </article>
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

function DoseDialog({
  open,
  onClose,
  pour,
  cup,
  materials,
  onAsWritten,
}: {
  open: boolean;
  onClose(): void;
  pour: Pour;
  cup: Cup;
  materials: Material[];
  onAsWritten(): void;
}) {
  const ref = useDialog(open);
  return (
    <dialog
      ref={ref}
      onClose={onClose}
      className="m-auto sheet p-5 text-[var(--ink)] w-[980px] max-w-[97vw] max-h-[96dvh] overflow-auto"
      aria-label="Doses"
    >
      {open && (
        <div className="flex flex-col gap-4">
          {cup.doses.length === 0 && pour.plan.items.length > 0 && (
            <div className="flex gap-6 items-end">
              <ul className="flex-1 ruled">
                {pour.plan.items.map((item, index) => {
                  const about = pour.recipeItems[index];
                  return about ? <ScaledRow key={item.id} item={about} scale={item} /> : null;
                })}
              </ul>
              <button type="button" className="btn btn-accent h-20 text-xl" onClick={onAsWritten}>
                All in, as written
              </button>
            </div>
          )}
          <DoseBoard
            ledgerId={pour.ledgerId}
            doses={cup.doses}
            materials={materials}
            batchMl={pour.cookMl}
            about={pour.id}
            firstIds={pour.recipeItems.map((item) => item.materialId)}
          />
          <button type="button" className="btn btn-primary bench-target self-end w-48" onClick={onClose}>
            Back to the cup
          </button>
        </div>
      )}
    </dialog>
  );
}

function FaultDialog({
  at,
  onClose,
  onMark,
}: {
  at: { cavity: number; mold: PourMold } | null;
  onClose(): void;
  onMark(result: 'good' | 'bad' | 'unmarked', reason?: Fault): void;
}) {
  const ref = useDialog(at !== null);
  return (
    <dialog ref={ref} onClose={onClose} className="m-auto sheet p-5 text-[var(--ink)]" aria-label="Good or bad">
      {at && (
        <div className="flex flex-col gap-4 w-[560px]">
          <h2 className="text-2xl">
            Cavity {at.cavity}, {at.mold.name}
          </h2>
          <button type="button" className="btn btn-secondary h-20 text-2xl" onClick={() => onMark('good')}>
            ✓ Good
          </button>
          <p className="font-bold">Bad, because:</p>
          <div className="grid grid-cols-3 gap-3">
            {FAULTS.map((fault) => (
              <button
                key={fault}
                type="button"
                className="btn btn-line h-[68px] text-lg"
                onClick={() => onMark('bad', fault)}
              >
                {FAULT_WORDS[fault]}
              </button>
            ))}
          </div>
          <div className="flex gap-3">
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)] bench-target flex-1"
              onClick={() => onMark('unmarked')}
            >
              Not looked at yet
            </button>
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)] bench-target flex-1"
              onClick={onClose}
            >
              Close
            </button>
          </div>
        </div>
      )}
    </dialog>
  );
}
