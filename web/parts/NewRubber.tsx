import { useState } from 'react';
import { type Material, rubberBody } from '../../contract/materials.ts';
import { usual } from '../../core/defaults.ts';
import { USUAL_RUBBER } from '../../core/mold/rubber.ts';
import { useWrite } from '../api/write.ts';
import { ChoiceIn, FigureIn, TextIn } from './sheet/In.tsx';
import { Send, Sheet } from './sheet/Sheet.tsx';
import { useSheet } from './sheet/useSheet.ts';

interface Typed {
  name: string;
  kind: 'silicone';
  mix: {
    by: 'mass' | 'volume';
    partA: number | null;
    partB: number | null;
    densityAGPerMl: number | null;
    densityBGPerMl: number | null;
  };
  potLifeMin: number | null;
  demoldMin: number | null;
  ratedC: number | null;
  hardness: number | null;
  tearKnPerM: number | null;
  cure: 'platinum' | 'tin' | null;
  pricePerKgMinor: number | null;
  lot: { code: string; grams: number | null };
}

const BEGUN: Typed = {
  name: '',
  kind: 'silicone',
  mix: USUAL_RUBBER.mix,
  potLifeMin: null,
  demoldMin: null,
  ratedC: usual('ratedC'),
  hardness: null,
  tearKnPerM: null,
  cure: null,
  pricePerKgMinor: null,
  lot: { code: 'first kit', grams: null },
};

const bodyOf = ({ lot, ...rubber }: Typed) => ({
  ...rubber,
  ...(rubber.hardness === null ? {} : { hardnessScale: 'A' }),
  ...(lot.grams === null ? {} : { lot }),
});

/** A rubber as its tin describes it. */
export function NewRubber({ onDone }: { onDone(id: string): void }) {
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({ schema: rubberBody, keep: 'rubber', seen: begun, body: bodyOf });
  const add = useWrite<Material>(
    () => ({ path: '/materials', body: bodyOf(sheet.values) }),
    (material) => {
      sheet.done();
      onDone(material.id);
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="sheet p-5 flex flex-col gap-4 max-w-4xl">
      <h2>The rubber, as its tin says</h2>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-4">
        <TextIn at="name" className="col-span-2" />
        <ChoiceIn
          at="mix.by"
          options={[
            { value: 'mass', label: 'mass' },
            { value: 'volume', label: 'volume' },
          ]}
        />
        <div className="grid grid-cols-2 gap-2">
          <FigureIn at="mix.partA" starts />
          <FigureIn at="mix.partB" starts />
        </div>
        <FigureIn at="potLifeMin" />
        <FigureIn at="demoldMin" hint="4 h is 240" />
        <FigureIn at="ratedC" starts />
        <div className="grid grid-cols-2 gap-2">
          <FigureIn at="mix.densityAGPerMl" />
          <FigureIn at="mix.densityBGPerMl" />
        </div>
        <FigureIn at="pricePerKgMinor" />
        <ChoiceIn
          at="cure"
          options={[
            { value: '', label: 'not written down' },
            { value: 'platinum', label: 'platinum (addition)' },
            { value: 'tin', label: 'tin (condensation)' },
          ]}
        />
        <FigureIn at="hardness" label="Shore A" hint="soft bends, stiff registers" />
        <FigureIn at="tearKnPerM" hint="off its sheet, if it is there" />
        <FigureIn at="lot.grams" label="In the store, both parts" />
      </div>
      <Send className="">Keep this rubber</Send>
    </Sheet>
  );
}
