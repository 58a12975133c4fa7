import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type Fitting as Fits, HOOK_SLOTS, type Mold, moldPatch } from '../../../contract/molds.ts';
import { STAND_IDS, STANDS, standing } from '../../../core/mold/stands.ts';
import { useWrite } from '../../api/write.ts';
import { ThrowOut } from '../../parts/PutAway.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { AsItWas, Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

export const SLOT_WORDS: Record<(typeof HOOK_SLOTS)[number], string> = {
  none: 'no hook slot',
  cast: 'hook slot in the cavity',
  insert: 'hook slot by an insert',
};
export const NO_FITTING: Fits = { eyeMm: null, hookSlot: 'none', plateC: null, stands: null, notes: '' };

/** The fields of what a mold is besides its cavities. */
export function FittingFields({ fill }: { fill: Mold['fill'] }) {
  const usual = standing(fill, null);
  return (
    <>
      <FigureIn at="fitting.eyeMm" hint="diameter; empty: none" />
      <ChoiceIn at="fitting.hookSlot" options={HOOK_SLOTS.map((one) => ({ value: one, label: SLOT_WORDS[one] }))} />
      <FigureIn at="fitting.plateC" hint="empty: filled cold" />
      {usual && (
        <ChoiceIn
          at="fitting.stands"
          options={[
            { value: '', label: `${STANDS[usual.way]}, by default` },
            ...STAND_IDS.map((one) => ({ value: one, label: STANDS[one] })),
          ]}
        />
      )}
      <TextIn at="fitting.notes" />
    </>
  );
}

function FittingSheet({ mold, onDone }: { mold: Mold; onDone(): void }) {
  const sheet = useSheet({
    schema: moldPatch,
    keep: `mold/${mold.id}/fitting`,
    seen: {
      name: mold.name,
      fitting: mold.fitting ?? NO_FITTING,
      injectorMl: mold.injectorMl,
      secondInjectorMl: mold.secondInjectorMl,
    },
  });
  const save = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}`, method: 'PATCH', version: mold.version, body: sheet.values }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="grid grid-cols-2 gap-3 max-w-2xl">
      <TextIn at="name" className="col-span-2" />
      <FittingFields fill={mold.fill} />
      {mold.fill === 'injection' && (
        <>
          <FigureIn at="injectorMl" hint="empty: loads are not counted" />
          <FigureIn at="secondInjectorMl" hint="where two are pushed together; empty: as much" />
        </>
      )}
      <div className="col-span-2 flex gap-3 items-start">
        <Send className="">Keep</Send>
        <AsItWas onDone={onDone} />
      </div>
    </Sheet>
  );
}

/** Eyes, slot, plate; how it was built; the worn ones before it. */
export function Fitting({ mold }: { mold: Mold }) {
  const navigate = useNavigate();
  const { text } = useTaste();
  const [changing, setChanging] = useState(false);
  const fits = mold.fitting ?? NO_FITTING;
  const stands = standing(mold.fill, fits.stands);
  const said = [
    fits.eyeMm !== null && `eyes of ${text(fits.eyeMm, 'length')}`,
    SLOT_WORDS[fits.hookSlot],
    fits.plateC !== null && `brought to ${text(fits.plateC, 'temperature')} first`,
    mold.injectorMl !== null &&
      `injector of ${text(mold.injectorMl, 'volume')}${mold.secondInjectorMl === null ? '' : ` and a second of ${text(mold.secondInjectorMl, 'volume')}`}`,
    stands && `filled ${STANDS[stands.way]}${stands.byDefault ? ' (a default)' : ''}`,
    fits.notes,
  ].filter(Boolean);
  return (
    <section className="flex flex-col gap-2">
      <h2>Fittings</h2>
      {changing ? (
        <FittingSheet mold={mold} onDone={() => setChanging(false)} />
      ) : (
        <p>
          {said.join('; ')}.{' '}
          <button type="button" className="link" onClick={() => setChanging(true)}>
            change
          </button>
        </p>
      )}
      {mold.pours.length === 0 && mold.events.length === 0 && (
        <p>
          <ThrowOut kind="molds" id={mold.id} onGone={() => navigate('/molds')} />
        </p>
      )}
      {mold.build && mold.master && (
        <p>
          Built here: {mold.build.wish.count} cavities, {mold.build.wish.kind === 'machined' ? 'machined' : 'printed'}.{' '}
          <Link to={`/molds/build?master=${mold.master.masterId}&mold=${mold.id}`} className="link">
            Build the same again
          </Link>
        </p>
      )}
      {mold.before.length > 0 && (
        <p className="soft">
          Before it:{' '}
          {mold.before.map((one, i) => (
            <span key={one.id}>
              {i > 0 && ', '}
              <Link to={`/molds/${one.id}`} className="link">
                {one.name}
              </Link>{' '}
              ({one.shots} shots)
            </span>
          ))}
          .
        </p>
      )}
    </section>
  );
}
