import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { type Bin, binBody, binMixBody, binMoveBody } from '../../../contract/bins.ts';
import { inUse } from '../../../contract/fields.ts';
import { lookHex } from '../../../core/colour/look.ts';
import { mixedHex } from '../../../core/colour/mixed.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Away, PutAway } from '../../parts/PutAway.tsx';
import { ChoiceIn, FigureIn, TextIn, TickIn } from '../../parts/sheet/In.tsx';
import { AsItWas, Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { unknownText } from '../../parts/words/colour.ts';

/** What waits to be melted again: grams, how often it was cooked, and what nobody knows of it. */
export function Bins() {
  const bins = useQuery(queries.bins).data?.items ?? [];
  const [open, setOpen] = useState<string | null>(null);
  const [making, setMaking] = useState(false);
  const here = inUse(bins).sort((a, b) => b.grams - a.grams);
  const most = Math.max(1, ...bins.map((bin) => bin.grams));
  const chosen = bins.find((bin) => bin.id === open);
  const away = bins.filter((bin) => bin.awayAt);
  return (
    <section className="flex flex-col gap-3">
      <div className="flex justify-between items-baseline">
        <h2>Remelt bins</h2>
        <button type="button" className="link text-sm" onClick={() => setMaking(!making)} aria-expanded={making}>
          one more bin
        </button>
      </div>
      {making && <NewBin onDone={() => setMaking(false)} />}
      <div className="flex flex-wrap gap-4 items-start">
        {here.map((bin) => (
          <BinDrawn
            key={bin.id}
            bin={bin}
            most={most}
            open={bin.id === open}
            onOpen={() => setOpen(bin.id === open ? null : bin.id)}
          />
        ))}
      </div>
      {chosen && <InBin key={chosen.id} bin={chosen} />}
      <Away count={away.length}>
        {away.map((bin) => (
          <li key={bin.id}>
            <button type="button" className="link" onClick={() => setOpen(bin.id)}>
              {bin.name}
            </button>
          </li>
        ))}
      </Away>
    </section>
  );
}

/** Above this share of grams that nobody knows the colour of, its name says more of a bin. */
const MOSTLY_UNKNOWN = 0.5;

/** As its contents are expected to look; where most of them are not known, as it was named. */
const expectedHex = ({ colour, hex }: Bin) =>
  colour && colour.unknownFraction < MOSTLY_UNKNOWN ? lookHex(colour.optics) : hex;

const heatsText = (heats: number | null) =>
  heats === null ? 'heats not known' : heats === 1 ? '1 heat' : `${heats} heats`;

function BinDrawn({ bin, most, open, onOpen }: { bin: Bin; most: number; open: boolean; onOpen(): void }) {
  const { text, workshop } = useTaste();
  const high = 80 * Math.max(0, bin.grams / most);
  const tired = bin.heats !== null && bin.heats >= workshop.remeltHeats;
  return (
    <button type="button" className="w-20 text-left" aria-expanded={open} onClick={onOpen}>
      <svg width={72} height={92} aria-hidden="true">
        <rect x={5} y={88 - high} width={62} height={high} fill={expectedHex(bin)} />
        <path d="M3 6 L8 89 H64 L69 6" fill="none" stroke="var(--ink)" strokeWidth={open ? 4 : 2.5} />
      </svg>
      <span className="figure text-sm block">{text(bin.grams, 'mass')}</span>
      <span className="label-small block leading-tight">{bin.name}</span>
      {bin.grams < 0 ? (
        <b className="heat text-xs block">weigh it</b>
      ) : (
        bin.grams > 0 && (
          <span className={`text-xs block ${tired ? 'warn font-bold' : 'soft'}`}>{heatsText(bin.heats)}</span>
        )
      )}
    </button>
  );
}

/** One bin: what is in it by heats, what came and went, and its scale. */
function InBin({ bin }: { bin: Bin }) {
  const { text } = useTaste();
  const moves = useQuery(queries.bin(bin.id)).data?.moves ?? [];
  const undo = useUndo();
  const [act, setAct] = useState<'given' | 'counted' | 'mixed' | null>(bin.grams < 0 ? 'counted' : null);
  return (
    <div className="sheet p-4 flex flex-col gap-3">
      <h3>{bin.name}</h3>
      {bin.grams < 0 && (
        <p className="heat font-bold">
          More was taken out than was ever written in. Weigh it, and the record is right again.
        </p>
      )}
      <ul className="ruled">
        {bin.layers.map((layer) => (
          <li key={layer.heats} className="flex justify-between gap-3 text-sm py-0.5">
            <span>{heatsText(layer.heats)}</span>
            <span className="figure">{text(layer.grams, 'mass')}</span>
            <span className="soft">
              {layer.saltUnknownG > 1e-6
                ? 'salt not known'
                : layer.saltG > 0.05
                  ? `${text(layer.saltG, 'mass')} salt`
                  : 'no salt'}
            </span>
          </li>
        ))}
      </ul>
      <p className="text-sm">
        {bin.colour === null
          ? 'Its colour is not known: it is drawn as it was named.'
          : `${['Drawn by what went in', unknownText(bin.colour)].filter(Boolean).join('; ')}.`}
      </p>
      <div className="flex gap-4 flex-wrap">
        <button type="button" className="link" onClick={() => setAct('given')}>
          given or used baits in
        </button>
        <button type="button" className="link" onClick={() => setAct('counted')}>
          weigh it
        </button>
        <button type="button" className="link" onClick={() => setAct('mixed')}>
          mix it with another
        </button>
        <Link to={`/rack/bins/${bin.id}`} className="link font-bold">
          what is in it
        </Link>
        <PutAway kind="bins" row={bin} />
      </div>
      {act === 'given' && <Given bin={bin} onDone={() => setAct(null)} />}
      {act === 'mixed' && <Mixed bin={bin} onDone={() => setAct(null)} />}
      {act === 'counted' && <Counted bin={bin} onDone={() => setAct(null)} />}
      <ul className="ruled">
        {moves.map((move) => (
          <li key={move.id} className={`text-sm py-0.5 ${move.reversed ? 'line-through soft' : ''}`}>
            <b className="figure">
              {move.grams > 0 && '+'}
              {text(move.grams, 'mass')}
            </b>{' '}
            {
              {
                cup: 'out of',
                used: 'into',
                given: 'given',
                mixed: 'mixed',
                counted: 'weighed',
                reversed: 'put back from',
              }[move.kind]
            }{' '}
            {move.pourCode} {move.note && `${move.note} `}
            <span className="soft">{dateText(move.at)}</span>{' '}
            {move.kind === 'given' && !move.reversed && (
              <button type="button" className="link" onClick={() => undo.mutate(move.id)}>
                undo
              </button>
            )}
          </li>
        ))}
      </ul>
      <Refusal error={undo.error} />
    </div>
  );
}

/** What was sent leaves the sheet as it began, and the sheet itself. */
function sentOf(sheet: { startAfresh(): void; done(): void }, onDone: () => void): void {
  sheet.startAfresh();
  sheet.done();
  onDone();
}

interface GivenTyped {
  kind: 'given';
  grams: number | null;
  heats: number | null;
  saltG: number | null;
  note: string;
  looked: boolean;
}
const NOTHING_GIVEN: GivenTyped = { kind: 'given', grams: null, heats: null, saltG: null, note: '', looked: false };

function Given({ bin, onDone }: { bin: Bin; onDone(): void }) {
  const sheet = useSheet<GivenTyped>({ schema: binMoveBody, keep: `bin/${bin.id}/given`, seen: NOTHING_GIVEN });
  const give = useWrite<Bin>(
    () => ({ path: `/bins/${bin.id}/moves`, body: sheet.values }),
    () => sentOf(sheet, onDone),
  );
  return (
    <Sheet of={sheet} by={give} onSend={() => give.mutate()}>
      <TextIn at="note" />
      <div className="grid grid-cols-3 gap-3">
        <FigureIn at="grams" />
        <FigureIn at="heats" />
        <FigureIn at="saltG" />
      </div>
      <TickIn at="looked" />
      <Caution about={['remelt']} />
      <div className="flex gap-3 items-start">
        <Send className="">Into the bin</Send>
        <AsItWas onDone={onDone} />
      </div>
    </Sheet>
  );
}

function Counted({ bin, onDone }: { bin: Bin; onDone(): void }) {
  const [begun] = useState<{ kind: 'counted'; grams: number | null }>({ kind: 'counted', grams: null });
  const sheet = useSheet({ schema: binMoveBody, keep: `bin/${bin.id}/counted`, seen: begun });
  const count = useWrite<Bin>(
    () => ({ path: `/bins/${bin.id}/moves`, body: sheet.values }),
    () => sentOf(sheet, onDone),
  );
  return (
    <Sheet of={sheet} by={count} onSend={() => count.mutate()} className="flex gap-3 items-start flex-wrap">
      <FigureIn at="grams" label="In it, weighed" className="w-36" />
      <div className="mt-5">
        <Send className="">Weighed</Send>
      </div>
    </Sheet>
  );
}

interface MixTyped {
  name: string;
  hex: string;
  from: { binId: string; grams: number | null }[];
}

/** Two leftovers become a third colour, which is named and kept. */
function Mixed({ bin, onDone }: { bin: Bin; onDone(): void }) {
  const bins = useQuery(queries.bins).data?.items ?? [];
  const others = bins.filter((one) => one.id !== bin.id && one.awayAt === null && one.grams > 0);
  const [first] = others;
  if (!first) return <p className="soft">No other bin holds anything to mix it with.</p>;
  return <Mixing bin={bin} others={others} first={first} onDone={onDone} />;
}

function Mixing({ bin, others, first, onDone }: { bin: Bin; others: Bin[]; first: Bin; onDone(): void }) {
  const [begun] = useState<MixTyped>({
    name: '',
    hex: bin.hex,
    from: [
      { binId: bin.id, grams: null },
      { binId: first.id, grams: null },
    ],
  });
  const sheet = useSheet<MixTyped>({ schema: binMixBody, keep: `bin/${bin.id}/mixed`, seen: begun });
  const parts = sheet.values.from.flatMap(({ binId, grams }) => {
    const of = [bin, ...others].find((one) => one.id === binId);
    return of && grams ? [{ of, grams }] : [];
  });
  const foreseen = mixedHex(
    parts.map(({ of, grams }) => ({ hex: expectedHex(of), grams, optics: of.colour?.optics ?? null })),
  );
  const byLook = parts.some(({ of }) => of.colour === null);
  const mix = useWrite<Bin>(
    () => ({ path: '/bins/mixed', body: sheet.values }),
    () => sentOf(sheet, onDone),
  );
  const { from } = sheet.values;
  const other = others.find((one) => one.id === from[1]?.binId) ?? first;
  return (
    <Sheet of={sheet} by={mix} onSend={() => mix.mutate()}>
      <div className="grid grid-cols-2 gap-3 items-start">
        <FigureIn at="from.0.grams" label={`Of ${bin.name}`} />
        <span />
        <FigureIn at="from.1.grams" label={`Of ${other.name}`} />
        <ChoiceIn at="from.1.binId" options={others.map((one) => ({ value: one.id, label: one.name }))} />
        <TextIn at="name" label="Name of the third colour" />
        <TextIn at="hex" type="color" />
      </div>
      {foreseen && (
        <p className="flex gap-3 items-center flex-wrap">
          <span className="w-10 h-10 border border-[var(--edge)] shrink-0" style={{ background: foreseen }} />
          <span>
            {byLook ? (
              <>
                About so, by their looks <span className="default-mark">default</span>
              </>
            ) : (
              'By what went into both.'
            )}
          </span>
          {foreseen !== sheet.values.hex && (
            <button type="button" className="link" onClick={() => sheet.set('hex', foreseen)}>
              take that
            </button>
          )}
        </p>
      )}
      <p className="soft text-sm">What two colours really make a puck shows: pour one and set what it shows.</p>
      <Send className="">Mix and keep</Send>
    </Sheet>
  );
}

function NewBin({ onDone }: { onDone(): void }) {
  const [begun] = useState({ name: '', hex: '#8a8577' });
  const sheet = useSheet({ schema: binBody, keep: 'bin', seen: begun });
  const add = useWrite<Bin>(
    () => ({ path: '/bins', body: sheet.values }),
    () => sentOf(sheet, onDone),
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex gap-3 items-start flex-wrap">
      <TextIn at="name" className="w-40" />
      <TextIn at="hex" type="color" />
      <div className="mt-5">
        <Send className="">Keep it</Send>
      </div>
    </Sheet>
  );
}
