import { useState } from 'react';
import type { Material } from '../../../contract/materials.ts';
import { useWrite } from '../../api/write.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** A rubber as its tin describes it. */
export function NewRubber({ onDone }: { onDone(id: string): void }) {
  const { workshop, minorPerUnit } = useTaste();
  const [name, setName] = useState('');
  const [by, setBy] = useState<'mass' | 'volume'>('mass');
  const [partA, setA] = useState<number | null>(10);
  const [partB, setB] = useState<number | null>(1);
  const [rhoA, setRhoA] = useState<number | null>(1.1);
  const [rhoB, setRhoB] = useState<number | null>(1.1);
  const [potLifeMin, setPot] = useState<number | null>(null);
  const [demoldMin, setDemold] = useState<number | null>(null);
  const [ratedC, setRated] = useState<number | null>(23);
  const [price, setPrice] = useState<number | null>(null);
  const [grams, setGrams] = useState<number | null>(null);
  const [shoreA, setShore] = useState<number | null>(null);
  const [tearKnPerM, setTear] = useState<number | null>(null);
  const [cure, setCure] = useState<'platinum' | 'tin' | ''>('');
  const add = useWrite<Material>(
    () => ({
      path: '/materials',
      body: {
        name,
        kind: 'silicone',
        mix: { by, partA, partB, densityAGPerMl: rhoA, densityBGPerMl: rhoB },
        potLifeMin,
        demoldMin,
        ratedC,
        ...(shoreA === null ? {} : { hardnessScale: 'A', hardness: shoreA }),
        tearKnPerM,
        cure: cure || null,
        pricePerKgMinor: price === null ? null : Math.round(price * minorPerUnit),
        ...(grams ? { lot: { code: 'first kit', grams } } : {}),
      },
    }),
    (material) => onDone(material.id),
  );
  const ready = name.trim() && partA && partB && rhoA && rhoB && potLifeMin && demoldMin;
  return (
    <section className="sheet p-5 flex flex-col gap-4 max-w-4xl">
      <h2>The rubber, as its tin says</h2>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-4">
        <TextField label="Name" value={name} onChange={setName} className="col-span-2" />
        <SelectField
          label="Mixed by"
          value={by}
          options={[
            { value: 'mass', label: 'mass' },
            { value: 'volume', label: 'volume' },
          ]}
          onChange={setBy}
        />
        <div className="grid grid-cols-2 gap-2">
          <NumberField label="Part A" value={partA} onChange={setA} />
          <NumberField label="Part B" value={partB} onChange={setB} />
        </div>
        <NumberField label="Pot life, min" value={potLifeMin} onChange={setPot} />
        <NumberField label="Demold, min" value={demoldMin} onChange={setDemold} hint="4 h is 240" />
        <QuantityField
          label="Rated at"
          dimension="temperature"
          value={ratedC}
          onChange={setRated}
          isDefault={ratedC === 23}
        />
        <div className="grid grid-cols-2 gap-2">
          <NumberField label="A, g/mL" value={rhoA} onChange={setRhoA} isDefault={rhoA === 1.1} />
          <NumberField label="B, g/mL" value={rhoB} onChange={setRhoB} isDefault={rhoB === 1.1} />
        </div>
        <NumberField label={`Price, ${workshop.currency} a kilogram`} value={price} onChange={setPrice} />
        <SelectField
          label="Cures by"
          value={cure}
          options={[
            { value: '', label: 'not written down' },
            { value: 'platinum', label: 'platinum (addition)' },
            { value: 'tin', label: 'tin (condensation)' },
          ]}
          onChange={setCure}
        />
        <NumberField label="Shore A" value={shoreA} onChange={setShore} hint="soft bends, stiff registers" />
        <NumberField
          label="Tear strength, kN/m"
          value={tearKnPerM}
          onChange={setTear}
          hint="off its sheet, if it is there"
        />
        <QuantityField label="In the store, both parts" dimension="mass" value={grams} onChange={setGrams} />
      </div>
      <Refusal error={add.error} />
      <button
        type="button"
        className="btn btn-primary self-start"
        disabled={!ready || add.isPending}
        onClick={() => add.mutate()}
      >
        Keep this rubber
      </button>
    </section>
  );
}
