import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Master, Revision } from '../../../contract/masters.ts';
import { builtBody, type Mold } from '../../../contract/molds.ts';
import { DEFAULTS } from '../../../core/defaults.ts';
import { methodWindow, middleOf } from '../../../core/heat/window.ts';
import type { MoldWish } from '../../../core/mold/buildWish.ts';
import { isPiece } from '../../../core/mold/pieces.ts';
import { PRINT_START, printEstimate } from '../../../core/mold/print.ts';
import { openingSchema, opensAfter } from '../../../core/process/opening.ts';
import { waitOf } from '../../../core/process/waits.ts';
import { durationText } from '../../../core/units/show.ts';
import { check } from '../../../core/validate.ts';
import { useWrite } from '../../api/write.ts';
import { TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { DrawnMold } from '../../workers/molder.ts';
import type { useMolder } from './useMolder.ts';

/** Along the bait, each place once. */
const placesAlong = (places: DrawnMold['caughtAtMm']) =>
  [...new Set(places.map(([x]) => 3 * Math.round(x / 3)))].sort((a, b) => a - b);

/** What a built mold measures, its files, and the way to keep it. */
export function MoldFigures({
  mold,
  wish,
  master,
  revision,
  onDownload,
  stale,
}: {
  mold: DrawnMold;
  wish: MoldWish;
  master: Master;
  revision: Revision;
  onDownload: ReturnType<typeof useMolder>['download'];
  stale: boolean;
}) {
  const { text, area, workshop } = useTaste();
  // Of what was built, which a newer wish may not be yet.
  const count = mold.layout.noses.length;
  const shotMl = count * mold.cavityMl + mold.channelsMl;
  const print = printEstimate(mold.parts.filter((part) => isPiece(part.name)));
  const kind = wish.kind === 'machined' ? 'aluminium' : 'printed';
  const pourC = middleOf(methodWindow({ kind, fill: 'injection' }));
  const first = opensAfter(
    check(openingSchema, {
      kind,
      fill: 'injection',
      thicknessMm: revision.thickestMm,
      wallMm: wish.wallMm,
      roomC: workshop.roomC,
      shots: 1,
    }),
  );
  const lines: [label: string, value: string, bad?: boolean][] = [
    ['One cavity', text(mold.cavityMl, 'volume')],
    ['Sprue, runner, gates', text(mold.channelsMl, 'volume')],
    ['One shot', text(shotMl, 'volume')],
    ...(mold.rubberMl > 0
      ? ([['Rubber to pour', text(mold.rubberMl, 'volume')]] as [string, string][])
      : ([['First wait, about', durationText(waitOf(first, 0))]] as [string, string][])),
    ...(wish.kind === 'machined'
      ? []
      : ([
          ['To print', text(print.grams, 'mass')],
          ['Printing, about', durationText(print.hours * 3600)],
        ] as [string, string][])),
    ...(mold.rubberMl > 0
      ? []
      : ([['Vents', mold.vents.length === 0 ? 'none' : `${mold.vents.length} a cavity`]] as [string, string][])),
    ...(mold.seamMm.high > mold.seamMm.low
      ? ([['Seam rises and falls', text(mold.seamMm.high - mold.seamMm.low, 'length')]] as [string, string][])
      : []),
    [`Thinnest wall, ${mold.thinnestWall.where}`, text(mold.thinnestWall.mm, 'length')],
    ['Caught in the upper half', area(mold.caughtMm2.upper), mold.caughtMm2.upper > 30],
    ['Caught in the lower half', area(mold.caughtMm2.lower), mold.caughtMm2.lower > 30],
  ];
  return (
    <>
      <ul className="ruled">
        {lines.map(([label, value, bad]) => (
          <li key={label} className="py-1 flex justify-between gap-3">
            <span>{label}</span>
            <span className={`figure text-right ${bad ? 'heat' : ''}`}>{value}</span>
          </li>
        ))}
      </ul>
      <p className="label-small">
        <span className="default-mark">defaults</span> poured at {text(pourC, 'temperature')}, opened at{' '}
        {text(DEFAULTS.demoldC.value, 'temperature')} mean; print of {text(PRINT_START.skinMm, 'length')} skin,{' '}
        {100 * PRINT_START.infillFraction} % infill, {PRINT_START.mm3PerS} mm³/s.
      </p>
      {mold.caughtAtMm.length > 0 && mold.undercutMm2 > 1 && (
        <p className="text-sm">
          Caught{' '}
          {placesAlong(mold.caughtAtMm)
            .map((x) => text(x, 'length'))
            .join(', ')}{' '}
          from the nose: the soft bait gives there, a hard master would not.
        </p>
      )}
      {mold.notes.map((note) => (
        <p key={note} className="text-sm warn font-bold">
          {note}
        </p>
      ))}
      <Files mold={mold} of={`${master.name} v${revision.number} x${count}`} stale={stale} onDownload={onDownload} />
      {wish.kind !== 'silicone-box' && (
        <KeepBuilt
          // A name of its own for another number of cavities.
          key={count}
          master={master}
          revision={revision}
          wish={wish}
          stale={stale}
          facts={{ kind, cavities: count, cavityMl: mold.cavityMl, sprueMl: mold.channelsMl }}
          depthMm={Math.max(...mold.depthMm)}
        />
      )}
    </>
  );
}

interface FilesProps {
  mold: DrawnMold;
  /** Whose mold it is: bait, revision, cavities. */
  of: string;
  stale: boolean;
  onDownload: ReturnType<typeof useMolder>['download'];
}

/** Each part as a file of its own, and all of them in one. */
function Files({ mold, of, stale, onDownload }: FilesProps) {
  const { text } = useTaste();
  return (
    <div className="flex flex-col gap-1">
      {mold.parts.map((part) => (
        <p key={part.name} className="flex gap-3 text-sm items-baseline">
          <span className="flex-1 capitalize">
            {part.name}
            {part.count !== undefined && part.count > 1 && ` × ${part.count}`}
          </span>
          <span className="figure">{text(part.volumeMl, 'volume')}</span>
          {(['stl', '3mf'] as const).map((format) => (
            <button
              key={format}
              type="button"
              className="link"
              disabled={stale}
              aria-label={`${part.name} as ${format.toUpperCase()}`}
              onClick={() => void onDownload(of, part.name, format)}
            >
              {format.toUpperCase()}
            </button>
          ))}
        </p>
      ))}
      {mold.parts.length > 1 && (
        <button
          type="button"
          className="link text-sm self-start"
          disabled={stale}
          onClick={() => void onDownload(of, 'all parts', '3mf')}
        >
          All parts in one 3MF
        </button>
      )}
    </div>
  );
}

interface KeepBuiltProps {
  master: Master;
  revision: Revision;
  /** Of the deeper half. */
  depthMm: number;
  wish: MoldWish;
  stale: boolean;
  facts: { kind: 'aluminium' | 'printed'; cavities: number; cavityMl: number; sprueMl: number };
}

function KeepBuilt({ master, revision, wish, stale, facts, depthMm }: KeepBuiltProps) {
  const navigate = useNavigate();
  const [begun] = useState({ name: `${master.name} × ${facts.cavities}` });
  const built = {
    ...facts,
    fill: 'injection',
    baitId: master.bait.id,
    revisionId: revision.id,
    build: { meshId: revision.meshId, wish, depthMm },
  };
  const sheet = useSheet({ schema: builtBody, keep: `built/${revision.id}/${facts.cavities}`, seen: begun });
  const keep = useWrite<Mold>(
    () => ({ path: '/molds', body: { ...built, ...sheet.values } }),
    (kept) => {
      sheet.done();
      navigate(`/molds/${kept.id}`);
    },
  );
  return (
    <Sheet
      of={sheet}
      by={{ error: keep.error, isPending: keep.isPending || stale }}
      onSend={() => keep.mutate()}
      className="flex flex-col gap-2 border-t border-[var(--rule)] pt-3"
    >
      <TextIn at="name" />
      <Send className="">Keep as a mold</Send>
    </Sheet>
  );
}
