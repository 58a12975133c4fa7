import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Mold } from '../../../contract/molds.ts';
import { SHAPES, type Shape } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';
import { FILLS, type Fill, MOLD_KINDS, type MoldKind } from '../../../core/heat/window.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { SHAPE_WORDS } from '../masters/words.ts';
import { FittingFields, NO_FITTING } from './Fitting.tsx';
import { FILL_WORDS, MOLD_KIND_WORDS } from './words.ts';

/** A mold that was bought, printed, machined or made before: cavities, and a bait weighed once. */
export function NewMold() {
  const navigate = useNavigate();
  const baits = useQuery(queries.baits);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<MoldKind>('aluminium');
  const [fill, setFill] = useState<Fill>('injection');
  const [baitId, setBaitId] = useState('new');
  const [baitName, setBaitName] = useState('');
  const [shape, setShape] = useState<Shape>('paddle');
  const [cavities, setCavities] = useState<number | null>(4);
  const [cavityMl, setCavity] = useState<number | null>(null);
  const [sprueMl, setSprue] = useState<number | null>(null);
  const [injectorMl, setInjector] = useState<number | null>(null);
  const [fitting, setFitting] = useState(NO_FITTING);
  const add = useWrite<Mold>(
    () => ({
      path: '/molds',
      body: {
        name,
        kind,
        fill,
        ...(baitId === 'new' ? { newBait: { name: baitName, shape } } : { baitId }),
        cavities,
        cavityMl,
        sprueMl: sprueMl ?? 0,
        fitting,
        ...(fill === 'injection' && injectorMl ? { injectorMl } : {}),
      },
    }),
    (mold) => navigate(`/molds/${mold.id}`),
  );
  if (!baits.data) return <Waiting />;
  const ready = name.trim() && cavities && cavityMl && (baitId !== 'new' || baitName.trim());
  return (
    <Page
      title="A mold you have"
      tab="Add a mold"
      under={`Count its cavities and weigh one bait: grams over ${usual('plastisolGPerMl')} are mL, for unsalted plastisol.`}
    >
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(380px,560px)_minmax(0,1fr)] gap-12">
        <form
          className="grid grid-cols-2 gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (ready) add.mutate();
          }}
        >
          <TextField label="Name of the mold" value={name} onChange={setName} autoFocus className="col-span-2" />
          <SelectField
            label="Made of"
            value={kind}
            options={MOLD_KINDS.map((value) => ({ value, label: MOLD_KIND_WORDS[value] }))}
            onChange={setKind}
          />
          <SelectField
            label="Filled by"
            value={fill}
            options={FILLS.map((value) => ({ value, label: FILL_WORDS[value] }))}
            onChange={setFill}
          />
          <SelectField
            label="Makes"
            value={baitId}
            options={[
              { value: 'new', label: 'a bait not here yet' },
              ...baits.data.items.map((bait) => ({ value: bait.id, label: bait.name })),
            ]}
            onChange={setBaitId}
          />
          {baitId === 'new' ? <TextField label="Name of the bait" value={baitName} onChange={setBaitName} /> : <span />}
          {baitId === 'new' && (
            <SelectField
              label="Drawn as"
              value={shape}
              options={SHAPES.map((value) => ({ value, label: SHAPE_WORDS[value] }))}
              onChange={setShape}
            />
          )}
          <NumberField label="Cavities" value={cavities} onChange={setCavities} min={1} />
          <QuantityField
            label="One bait"
            dimension="volume"
            value={cavityMl}
            onChange={setCavity}
            densityGPerMl={usual('plastisolGPerMl')}
            hint="or its mass: 11.5 g"
          />
          <QuantityField
            label="Sprue and runner of a shot"
            dimension="volume"
            value={sprueMl}
            onChange={setSprue}
            densityGPerMl={usual('plastisolGPerMl')}
            hint="weigh one; empty: none"
          />
          {fill === 'injection' && (
            <QuantityField
              label="Injector holds"
              dimension="volume"
              value={injectorMl}
              onChange={setInjector}
              hint="empty: loads are not counted"
            />
          )}
          <FittingFields value={fitting} onChange={setFitting} />
          <div className="col-span-2 flex flex-col gap-3">
            <Refusal error={add.error} />
            <button type="submit" className="btn btn-primary btn-lg self-start" disabled={!ready || add.isPending}>
              Keep this mold
            </button>
          </div>
        </form>
        <MoldBlock
          mold={{
            name: name || 'The mold',
            cavities: Math.min(cavities ?? 1, 64),
            columns: Math.min(cavities ?? 1, 4),
            kind,
            shape: baits.data.items.find((bait) => bait.id === baitId)?.shape ?? shape,
          }}
          widthPx={360}
        />
      </div>
    </Page>
  );
}
