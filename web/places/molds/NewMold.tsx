import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import { type Fitting, type Mold, moldBody } from '../../../contract/molds.ts';
import { type Bait, SHAPES, type Shape } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';
import { FILLS, type Fill, MOLD_KINDS, type MoldKind } from '../../../core/heat/window.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { ChoiceIn, choices, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { SHAPE_WORDS } from '../../parts/words/master.ts';
import { FILL_WORDS, MOLD_KIND_WORDS } from '../../parts/words/mold.ts';
import { FittingFields, NO_FITTING } from './Fitting.tsx';

interface Typed {
  name: string;
  kind: MoldKind;
  fill: Fill;
  baitId: string;
  newBait: { name: string; shape: Shape };
  cavities: number | null;
  cavityMl: number | null;
  sprueMl: number | null;
  injectorMl: number | null;
  fitting: Fitting;
}

const NOT_HERE = 'new';
const BEGUN: Typed = {
  name: '',
  kind: 'aluminium',
  fill: 'injection',
  baitId: NOT_HERE,
  newBait: { name: '', shape: 'paddle' },
  cavities: 4,
  cavityMl: null,
  sprueMl: null,
  injectorMl: null,
  fitting: NO_FITTING,
};

const bodyOf = ({ baitId, newBait, injectorMl, sprueMl, ...mold }: Typed) => ({
  ...mold,
  sprueMl: sprueMl ?? 0,
  ...(baitId === NOT_HERE ? { newBait } : { baitId }),
  ...(mold.fill === 'injection' && injectorMl !== null ? { injectorMl } : {}),
});

/** A mold that was bought, printed, machined or made before: cavities, and a bait weighed once. */
export function NewMold() {
  const all = useQuery(queries.baits).data?.items;
  if (!all) return <Waiting />;
  const baits = inUse(all);
  return (
    <Page
      title="A mold you have"
      tab="Add a mold"
      under={`Count its cavities and weigh one bait: grams over ${usual('plastisolGPerMl')} are mL, for unsalted plastisol.`}
    >
      <MoldSheet baits={baits} />
    </Page>
  );
}

function MoldSheet({ baits }: { baits: Bait[] }) {
  const navigate = useNavigate();
  const { text } = useTaste();
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({ schema: moldBody, keep: 'mold', seen: begun, body: bodyOf });
  const { name, kind, fill, baitId, newBait, cavities } = sheet.values;
  const add = useWrite<Mold>(
    () => ({ path: '/molds', body: bodyOf(sheet.values) }),
    (mold) => {
      sheet.done();
      navigate(`/molds/${mold.id}`);
    },
  );
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(380px,560px)_minmax(0,1fr)] gap-12">
      <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="grid grid-cols-2 gap-4">
        <TextIn at="name" autoFocus className="col-span-2" />
        <ChoiceIn at="kind" options={choices(MOLD_KINDS, MOLD_KIND_WORDS)} />
        <ChoiceIn at="fill" options={choices(FILLS, FILL_WORDS)} />
        <ChoiceIn
          at="baitId"
          options={[
            { value: NOT_HERE, label: 'a bait not here yet' },
            ...baits.map((bait) => ({ value: bait.id, label: bait.name })),
          ]}
        />
        {baitId === NOT_HERE ? <TextIn at="newBait.name" /> : <span />}
        {baitId === NOT_HERE && <ChoiceIn at="newBait.shape" options={choices(SHAPES, SHAPE_WORDS)} />}
        <FigureIn at="cavities" starts />
        <FigureIn at="cavityMl" densityGPerMl={usual('plastisolGPerMl')} hint={`or its mass: ${text(11.5, 'mass')}`} />
        <FigureIn at="sprueMl" densityGPerMl={usual('plastisolGPerMl')} hint="weigh one; empty: none" />
        {fill === 'injection' && <FigureIn at="injectorMl" hint="empty: loads are not counted" />}
        <FittingFields fill={fill} />
        <div className="col-span-2">
          <Send>Keep this mold</Send>
        </div>
      </Sheet>
      <MoldBlock
        mold={{
          name: name || 'The mold',
          cavities: Math.min(cavities ?? 1, 64),
          columns: Math.min(cavities ?? 1, 4),
          kind,
          shape: baits.find((bait) => bait.id === baitId)?.shape ?? newBait.shape,
        }}
        widthPx={360}
      />
    </div>
  );
}
