import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { PlannedCup, PlannedDay } from '../../../core/plan/production.ts';
import { hoursText } from '../../../core/units/show.ts';
import { dayText, todayIso } from '../../parts/dates.ts';
import { fullText, type Named } from './words.ts';

interface Acts {
  /** Puts a colour on another evening. */
  onMove(colourId: string, from: string, to: string): void;
  /** Lets the plan choose the evenings of a colour again. */
  onLetGo(colourId: string): void;
  onLayOut(cup: PlannedCup): void;
}

interface Props extends Acts {
  days: PlannedDay[];
  named: Named;
}

/** The evenings one under another, each with its cups as they are poured; a cup is dragged, or sent, to another. */
export function PlanDays({ days, named, ...acts }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 8 } }),
    useSensor(KeyboardSensor),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const [colourId, from] = String(active.id).split(' ');
    if (over && colourId && from && over.id !== from) acts.onMove(colourId, from, String(over.id));
  };
  const last = days.reduce((at, day, index) => (day.cups.length + day.packed.length > 0 ? index : at), 0);
  const widest = Math.max(60, ...days.map(({ handsMin }) => handsMin));
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <ol className="border-t border-[var(--rule)]">
        {days.slice(0, Math.min(days.length, last + 3)).map((day) => (
          <Day key={day.day} day={day} days={days} named={named} widestMin={widest} {...acts} />
        ))}
      </ol>
    </DndContext>
  );
}

interface DayProps extends Acts {
  day: PlannedDay;
  days: PlannedDay[];
  named: Named;
  widestMin: number;
}

function Day({ day, days, named, widestMin, ...acts }: DayProps) {
  const { setNodeRef, isOver } = useDroppable({ id: day.day });
  const tonight = day.day === todayIso();
  const packs = new Map<string, number>();
  let forRack = 0;
  for (const { lineId, baits } of day.packed) {
    const line = named.line(lineId);
    // The last bag of a line that was begun is one too.
    if (line?.orderId === '') forRack += baits;
    else if (line) packs.set(line.code, (packs.get(line.code) ?? 0) + Math.ceil(baits / line.perPack));
  }
  return (
    <li
      ref={setNodeRef}
      className="border-b border-[var(--rule)] py-3 grid grid-cols-1 sm:grid-cols-[180px_minmax(0,1fr)] gap-x-5 gap-y-2"
      style={isOver ? { background: 'var(--sheet)', outline: '2px dashed var(--rest)' } : undefined}
    >
      <div>
        <h3 className={tonight ? 'heat' : ''}>{tonight ? 'Tonight' : dayText(day.day)}</h3>
        <HandsScale day={day} widestMin={widestMin} />
        <p className="soft text-sm">
          {day.handsMin === 0
            ? 'nobody is there'
            : day.pourMin + day.packMin === 0
              ? `${hoursText(day.handsMin / 60)} given`
              : `${hoursText((day.pourMin + day.packMin) / 60)} of ${hoursText(day.handsMin / 60)}`}
        </p>
        {day.full.length > 0 && <p className="warn text-sm font-bold">{fullText(day.full)}</p>}
      </div>
      <div className="flex flex-col gap-2 min-w-0">
        {day.cups.length > 0 && (
          <ul className="flex flex-wrap gap-2">
            {day.cups.map((cup, index) => (
              <Cup
                key={cup.colourId}
                cup={cup}
                nth={index}
                day={day.day}
                days={days}
                named={named}
                tonight={tonight}
                {...acts}
              />
            ))}
          </ul>
        )}
        {forRack > 0 && (
          <p>
            <b className="figure">{forRack}</b> baits are ready for the season
          </p>
        )}
        {packs.size > 0 && (
          <p>
            <b>Pack</b> {[...packs].map(([code, n]) => `${n} ${n === 1 ? 'bag' : 'bags'} of ${code}`).join(', ')}
            <span className="soft">: {hoursText(day.packMin / 60)}</span>
          </p>
        )}
        {day.cups.length + packs.size + forRack === 0 && <p className="soft">{day.handsMin === 0 ? 'off' : 'free'}</p>}
      </div>
    </li>
  );
}

/** The hours that are given as a marked scale, filled with what is taken of them: pouring, then packing. */
function HandsScale({ day, widestMin }: { day: PlannedDay; widestMin: number }) {
  const [widthPx, high] = [160, 18];
  const at = (minutes: number) => (minutes / widestMin) * widthPx;
  const halves = Math.floor(day.handsMin / 30);
  return (
    <svg width={widthPx + 4} height={high} className="max-w-full" aria-hidden>
      <rect x={1} y={7} width={at(day.pourMin)} height={10} fill="var(--heat)" />
      <rect x={1 + at(day.pourMin)} y={7} width={at(day.packMin)} height={10} fill="var(--rest)" />
      <line x1={1} x2={1 + at(day.handsMin)} y1={17} y2={17} stroke="var(--edge)" />
      {Array.from({ length: halves + 1 }, (_, n) => (
        <line
          // biome-ignore lint/suspicious/noArrayIndexKey: marks of a scale
          key={n}
          x1={1 + at(n * 30)}
          x2={1 + at(n * 30)}
          y1={n % 2 === 0 ? 2 : 8}
          y2={17}
          stroke="var(--edge)"
        />
      ))}
    </svg>
  );
}

interface CupProps extends Acts {
  cup: PlannedCup;
  nth: number;
  day: string;
  days: PlannedDay[];
  named: Named;
  tonight: boolean;
}

function Cup({ cup, nth, day, days, named, tonight, onMove, onLetGo, onLayOut }: CupProps) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: `${cup.colourId} ${day}` });
  const { name, hex } = named.colour(cup.colourId);
  const baits = cup.molds.reduce((sum, one) => sum + one.baits, 0);
  return (
    <li
      ref={setNodeRef}
      className="sheet p-3 flex flex-col gap-1.5 w-full sm:w-[268px]"
      style={
        transform
          ? {
              transform: `translate(${transform.x}px, ${transform.y}px)`,
              zIndex: 10,
              position: 'relative',
              opacity: isDragging ? 0.85 : 1,
            }
          : undefined
      }
    >
      <button
        type="button"
        className="flex items-center gap-2 cursor-grab touch-none text-left"
        {...listeners}
        {...attributes}
        aria-label={`${name}, cup ${nth + 1}: drag to another evening`}
      >
        <span className="w-6 h-7 border-2 border-t-0 border-[var(--ink)] rounded-b-md" style={{ background: hex }} />
        <b className="text-lg leading-tight">{name}</b>
        {cup.pinned && <span className="soft text-sm ml-auto">fixed</span>}
      </button>
      <p className="leading-snug">
        {cup.molds.map(({ moldId, shots, baits: good }) => (
          <span key={moldId} className="block">
            <b className="figure">{shots}</b> {shots === 1 ? 'shot' : 'shots'} in {named.mold(moldId)}
            <span className="soft">, {good} good</span>
          </span>
        ))}
      </p>
      <p className="soft text-sm">
        {cup.glasses} {cup.glasses === 1 ? 'glass' : 'glasses'}, {baits} baits
      </p>
      <div className="flex gap-2 items-center mt-auto no-print">
        {tonight && (
          <button type="button" className="btn btn-sm btn-accent" onClick={() => onLayOut(cup)}>
            Lay it out
          </button>
        )}
        <select
          className="select select-sm flex-1 min-w-0"
          aria-label={`${name} on another evening`}
          value=""
          onChange={(event) => onMove(cup.colourId, day, event.target.value)}
        >
          <option value="">move …</option>
          {days
            .filter((one) => one.day !== day && one.handsMin > 0)
            .map((one) => (
              <option key={one.day} value={one.day}>
                {dayText(one.day)}
              </option>
            ))}
        </select>
        {cup.pinned && (
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => onLetGo(cup.colourId)}>
            Let go
          </button>
        )}
      </div>
    </li>
  );
}
