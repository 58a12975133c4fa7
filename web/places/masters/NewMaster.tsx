import { useState } from 'react';
import { useNavigate } from 'react-router';
import { MASTER_KINDS, type Master } from '../../../contract/masters.ts';
import { SHAPES, type Shape } from '../../../contract/workshop.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { NumberField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page } from '../../parts/Page.tsx';
import {
  complete,
  DimensionFields,
  EMPTY,
  MasterDrawing,
  type Volume,
  VolumeFields,
  volumeBodyOf,
} from './Measures.tsx';
import { DENSITY_G_PER_ML, KIND_WORDS, SHAPE_WORDS } from './words.ts';

export function NewMaster() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<(typeof MASTER_KINDS)[number]>('clay');
  const [shape, setShape] = useState<Shape>('paddle');
  const [dimensions, setDimensions] = useState(EMPTY);
  const [packCount, setPackCount] = useState<number | null>(8);
  const [volume, setVolume] = useState<Volume>({
    how: 'weighed',
    grams: null,
    densityGPerMl: DENSITY_G_PER_ML.clay,
    ml: null,
  });
  const changeKind = (next: typeof kind) => {
    setKind(next);
    setVolume({ ...volume, densityGPerMl: DENSITY_G_PER_ML[next] });
  };
  const add = useWrite<Master>(
    () => ({
      path: '/masters',
      body: { name, kind, shape, packCount: packCount ?? 8, ...dimensions, volume: volumeBodyOf(volume) },
    }),
    (master) => navigate(`/masters/${master.id}`),
  );
  const ready = name.trim() !== '' && complete(dimensions);
  return (
    <Page title="A new master" tab="New master" under="Four measures and a weighing; the rest is computed.">
      <form
        className="grid grid-cols-[minmax(340px,460px)_1fr] gap-12"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) add.mutate();
        }}
      >
        <div className="flex flex-col gap-4">
          <TextField
            label="Name of the bait"
            value={name}
            onChange={setName}
            autoFocus
            hint="the name it goes by in molds, pours and orders"
          />
          <div className="grid grid-cols-2 gap-4">
            <SelectField
              label="Made of"
              value={kind}
              options={MASTER_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
              onChange={changeKind}
            />
            <SelectField
              label="Drawn as"
              value={shape}
              options={SHAPES.map((value) => ({ value, label: SHAPE_WORDS[value] }))}
              onChange={setShape}
            />
          </div>
          <DimensionFields value={dimensions} onChange={setDimensions} />
          <VolumeFields value={volume} onChange={setVolume} usualDensity={DENSITY_G_PER_ML[kind]} canWait />
          <NumberField
            label="Baits to a pack"
            value={packCount}
            onChange={setPackCount}
            min={1}
            isDefault={packCount === 8}
            className="w-40"
          />
          <Refusal error={add.error} />
          <button type="submit" className="btn btn-primary btn-lg self-start" disabled={!ready || add.isPending}>
            Keep this master
          </button>
        </div>
        <div className="flex flex-col gap-6">
          {complete(dimensions) ? (
            <MasterDrawing shape={shape} {...dimensions} />
          ) : (
            <p className="soft text-lg max-w-md">
              Type length, width, height and thickest section: the bait is drawn here to scale, as a check that no
              figure slipped.
            </p>
          )}
          {kind === 'own-bait' && (
            <p className="max-w-md">
              Wash it with dish soap to get the oil off, cut injection nubs flush, and lay it on its flat back.
            </p>
          )}
          {kind === 'natural' && (
            <p className="max-w-md">
              Pin it straight, freeze it, mold it cold, then cast a hard master in resin that can be reworked.
            </p>
          )}
          <Caution about={['design']} />
        </div>
      </form>
    </Page>
  );
}
