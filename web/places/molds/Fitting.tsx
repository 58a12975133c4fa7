import { useState } from 'react';
import { Link } from 'react-router';
import { type Fitting as Fits, HOOK_SLOTS, type Mold } from '../../../contract/molds.ts';
import { useWrite } from '../../api/write.ts';
import { QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

export const SLOT_WORDS: Record<(typeof HOOK_SLOTS)[number], string> = {
  none: 'no hook slot',
  cast: 'hook slot in the cavity',
  insert: 'hook slot by an insert',
};
export const NO_FITTING: Fits = { eyeMm: null, hookSlot: 'none', plateC: null, notes: '' };

/** The fields of what a mold is besides its cavities. */
export function FittingFields({ value, onChange }: { value: Fits; onChange(value: Fits): void }) {
  return (
    <>
      <QuantityField
        label="Eye sockets"
        dimension="length"
        value={value.eyeMm}
        onChange={(eyeMm) => onChange({ ...value, eyeMm })}
        hint="diameter; empty: none"
      />
      <SelectField
        label="Hook slot"
        value={value.hookSlot}
        options={HOOK_SLOTS.map((one) => ({ value: one, label: SLOT_WORDS[one] }))}
        onChange={(hookSlot) => onChange({ ...value, hookSlot })}
      />
      <QuantityField
        label="Brought to, on a plate"
        dimension="temperature"
        value={value.plateC}
        onChange={(plateC) => onChange({ ...value, plateC })}
        hint="empty: filled cold"
      />
      <TextField label="What to know of it" value={value.notes} onChange={(notes) => onChange({ ...value, notes })} />
    </>
  );
}

/** Eyes, slot, plate; how it was built; the worn ones before it. */
export function Fitting({ mold }: { mold: Mold }) {
  const { text } = useTaste();
  const [draft, setDraft] = useState<Fits | null>(null);
  const fits = mold.fitting ?? NO_FITTING;
  const save = useWrite<Mold>(
    () => ({ path: `/molds/${mold.id}`, method: 'PATCH', version: mold.version, body: { fitting: draft } }),
    () => setDraft(null),
  );
  const said = [
    fits.eyeMm !== null && `eyes of ${text(fits.eyeMm, 'length')}`,
    SLOT_WORDS[fits.hookSlot],
    fits.plateC !== null && `brought to ${text(fits.plateC, 'temperature')} first`,
    fits.notes,
  ].filter(Boolean);
  return (
    <section className="flex flex-col gap-2">
      <h2>Fittings</h2>
      {draft ? (
        <form
          className="grid grid-cols-2 gap-3 max-w-2xl"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate();
          }}
        >
          <FittingFields value={draft} onChange={setDraft} />
          <div className="col-span-2 flex gap-3">
            <button type="submit" className="btn btn-primary" disabled={save.isPending}>
              Keep
            </button>
            <button type="button" className="btn btn-line" onClick={() => setDraft(null)}>
              As it was
            </button>
            <Refusal error={save.error} />
          </div>
        </form>
      ) : (
        <p>
          {said.join('; ')}.{' '}
          <button type="button" className="link" onClick={() => setDraft(fits)}>
            change
          </button>
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
