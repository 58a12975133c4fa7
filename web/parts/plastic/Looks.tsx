import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { type ColourLook, lookSheet } from '../../../contract/looks.ts';
import type { Melt } from '../../../core/colour/foresee.ts';
import { deltaE, labOf, moreOf } from '../../../core/colour/lab.ts';
import { hexOf, layerOver, linearOf, type Rgb } from '../../../core/colour/light.ts';
import { usual } from '../../../core/defaults.ts';
import { tapRow, useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { Refusal } from '../Fields.tsx';
import { timeText } from '../hours.ts';
import { FigureIn, TextIn } from '../sheet/In.tsx';
import { Send, Sheet } from '../sheet/Sheet.tsx';
import { useSheet } from '../sheet/useSheet.ts';
import { useTaste } from '../taste.tsx';
import { LACKING, seenAs } from '../words/colour.ts';
import { TapPhoto } from './TapPhoto.tsx';

const WHITE: Rgb = [1, 1, 1];

/** Two colours beside each other, and how far they are apart. */
function Beside({ foreseen, seen }: { foreseen: Rgb; seen: Rgb }) {
  const off = deltaE(labOf(foreseen), labOf(seen));
  return (
    <div className="flex gap-4 items-center flex-wrap">
      <span
        className="flex w-44 h-14 border border-[var(--edge)] shrink-0"
        role="img"
        aria-label={`Foreseen ${hexOf(foreseen)}, seen ${hexOf(seen)}`}
      >
        <span className="flex-1" style={{ background: hexOf(foreseen) }} />
        <span className="flex-1" style={{ background: hexOf(seen) }} />
      </span>
      <span>
        ΔE <b className="figure text-2xl">{off.toFixed(1)}</b>{' '}
        {off < 1 ? 'as foreseen' : `came out ${LACKING[moreOf(labOf(seen), labOf(foreseen))]}; ${seenAs(off)}`}
      </span>
    </div>
  );
}

/**
 * A look at the cup: a drop of it on the white plate, read off a picture or typed, beside what was foreseen; kept, it teaches how
 * these colours come out here.
 */
export function Looks({ ledgerId, melt }: { ledgerId: string; melt: Melt }) {
  const { data } = useQuery(queries.looksOf(ledgerId));
  const waiting = useTaps().filter(({ path, refused }) => !refused && path === `/ledgers/${ledgerId}/looks`);
  const looks = data?.items ?? [];
  return (
    <section className="flex flex-col gap-3" aria-label="Looks at the cup">
      <h2>How it really looks</h2>
      <NewLook ledgerId={ledgerId} melt={melt} />
      {waiting.length > 0 && <p className="soft">A look waits for the workshop’s computer.</p>}
      <ul className="ruled">
        {looks.map((look) => (
          <Kept key={look.id} look={look} />
        ))}
      </ul>
    </section>
  );
}

function Kept({ look }: { look: ColourLook }) {
  const { text } = useTaste();
  const undo = useUndo();
  return (
    <li className="py-2 flex flex-wrap gap-x-4 items-center">
      <Beside foreseen={look.foreseen} seen={look.seen} />
      <span className="soft text-sm">
        {timeText(look.at)}, {text(look.thicknessMm, 'length')} thick
      </span>
      <button type="button" className="link" onClick={() => undo.mutate(look.id)}>
        take it back
      </button>
      <Refusal error={undo.error} />
    </li>
  );
}

interface Typed {
  thicknessMm: number | null;
  seen: string;
}

function NewLook({ ledgerId, melt }: { ledgerId: string; melt: Melt }) {
  const [how, setHow] = useState<'typed' | 'photo'>('typed');
  const [begun] = useState<Typed>({ thicknessMm: usual('lookedAtMm'), seen: '' });
  const sheet = useSheet<Typed>({ schema: lookSheet, keep: `ledger/${ledgerId}/look`, seen: begun });
  const { thicknessMm, seen } = sheet.values;
  const foreseen = useMemo(
    () => (thicknessMm === null ? null : layerOver(melt.optics, thicknessMm, WHITE)),
    [melt, thicknessMm],
  );
  const keep = () => {
    tapRow(`/ledgers/${ledgerId}/looks`, { how, thicknessMm, seen: linearOf(seen) }, 'a look at the cup', ledgerId);
    sheet.startAfresh();
    sheet.done();
    setHow('typed');
  };
  return (
    <div className="flex flex-col gap-3">
      <p className="soft max-w-2xl">
        Let a drop fall on the white plate, or pour a puck; cold, hold it over paper. What is kept here teaches how
        these colours come out in this workshop.
      </p>
      <TapPhoto
        places={['the drop or puck']}
        onRead={([read]) => {
          if (!read) return;
          setHow('photo');
          sheet.set('seen', read);
        }}
      />
      <Sheet
        of={sheet}
        by={{ error: null, isPending: false }}
        onSend={keep}
        className="flex flex-wrap gap-4 items-start"
      >
        <FigureIn at="thicknessMm" className="w-52" starts />
        <TextIn at="seen" type="color" />
        <div className="mt-5">
          <Send>Keep this look</Send>
        </div>
      </Sheet>
      {seen !== '' && foreseen && <Beside foreseen={foreseen} seen={linearOf(seen)} />}
    </div>
  );
}
