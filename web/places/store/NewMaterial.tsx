import { useState } from 'react';
import { MATERIAL_KINDS, type Material, type MaterialKind, materialBody } from '../../../contract/materials.ts';
import { isCounted } from '../../../core/units/counted.ts';
import { useWrite } from '../../api/write.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { NewRubber } from '../../parts/NewRubber.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { KIND_TITLES } from './kinds.ts';

interface Typed {
  kind: MaterialKind;
  name: string;
  hex: string;
  hardness: number | null;
  limitC: number | null;
  lot: { code: string; grams: number | null };
}

const BEGUN: Typed = {
  kind: 'plastisol',
  name: '',
  hex: '#888888',
  hardness: null,
  limitC: null,
  lot: { code: '', grams: null },
};

const isColoured = (kind: MaterialKind) => ['colourant', 'powder', 'flake'].includes(kind);

const bodyOf = ({ kind, name, hex, hardness, limitC, lot }: Typed) => ({
  name,
  kind,
  ...(isColoured(kind) ? { hex } : {}),
  ...(kind === 'plastisol' && hardness !== null ? { hardnessScale: '00', hardness } : {}),
  ...(kind === 'flake' && limitC !== null ? { limitC } : {}),
  // A code that was typed is not dropped: its amount is missing then.
  ...(lot.grams === null && lot.code === '' ? {} : { lot: { code: lot.code || 'first lot', grams: lot.grams } }),
});

export function NewMaterial({ onDone }: { onDone(id: string): void }) {
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({ schema: materialBody, keep: 'material', seen: begun, body: bodyOf });
  const { kind } = sheet.values;
  const add = useWrite<Material>(
    () => ({ path: '/materials', body: bodyOf(sheet.values) }),
    (material) => {
      sheet.done();
      onDone(material.id);
    },
  );
  const kinds = MATERIAL_KINDS.map((value) => ({ value, label: KIND_TITLES[value] }));
  if (kind === 'silicone')
    return (
      <section className="flex flex-col gap-4">
        <SelectField<MaterialKind>
          label="Kind"
          value={kind}
          options={kinds}
          onChange={(next) => sheet.set('kind', next)}
          className="w-64"
        />
        <NewRubber onDone={onDone} />
      </section>
    );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="sheet p-5 flex flex-col gap-4">
      <ChoiceIn at="kind" options={kinds} className="w-64" />
      <div className="flex gap-4 items-start flex-wrap">
        <TextIn at="name" className="w-64" autoFocus />
        {isColoured(kind) && <TextIn at="hex" type="color" />}
        {kind === 'plastisol' && <FigureIn at="hardness" label="Hardness, Shore 00" className="w-36" />}
        {kind === 'flake' && <FigureIn at="limitC" className="w-32" hint="empty: no limit" />}
        <TextIn at="lot.code" className="w-32" />
        <FigureIn at="lot.grams" className="w-32" pieces={isCounted(kind)} />
      </div>
      <Send className="">Keep it</Send>
    </Sheet>
  );
}
