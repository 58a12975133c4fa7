import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { type Material, stepSheet } from '../../../contract/materials.ts';
import { calibrate } from '../../../core/colour/calibrate.ts';
import { meltOfIngredients, ordinaryDose } from '../../../core/colour/foresee.ts';
import { linearOf, type Optics } from '../../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { usual } from '../../../core/defaults.ts';
import { Failure, tried } from '../../../core/failure.ts';
import { gramsPerMl } from '../../../core/plastisol/weigh.ts';
import { convert } from '../../../core/units/convert.ts';
import { parseAmount, unitNamed } from '../../../core/units/parse.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { lineOf } from '../../parts/plastic/melts.ts';
import { TapPhoto } from '../../parts/plastic/TapPhoto.tsx';
import { Wedge } from '../../parts/plastic/Wedge.tsx';
import { FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { type Taste, useTaste } from '../../parts/taste.tsx';

export function Measure() {
  const { id = '' } = useParams();
  const { data, error } = useQuery(queries.materials);
  const material = data?.items.find((one) => one.id === id);
  if (isGone(error, data)) return <Missing error={error} back="The store" backTo="/store" />;
  if (!data) return <Waiting />;
  if (!material || !['colourant', 'powder'].includes(material.kind))
    return (
      <Missing error={new Failure('not-found', 'There is no such colour here.')} back="The store" backTo="/store" />
    );
  return <Step key={material.id} material={material} />;
}

interface Typed {
  amount: string;
  plastisolMl: number | null;
  thicknessMm: number | null;
  overBlack: string;
  overWhite: string;
}

/** Millilitres of this bottle in a litre, as written; undefined as long as that is not understood. */
function doseOf({ amount, plastisolMl }: Typed, material: Material, { measures, workshop }: Taste): number | undefined {
  return tried(() => {
    const { value, unit } = parseAmount(amount);
    const { dropsPerMl } = lineOf(material, { amount: value, unit }, workshop.dropsPerMl);
    const ml = convert({
      value,
      from: unit === '' ? 'drop' : unitNamed(unit),
      to: 'mL',
      dropsPerMl: dropsPerMl as number,
      densityGPerMl: gramsPerMl(material).gPerMl,
      measures,
    }).value;
    return plastisolMl === null ? undefined : (1000 * ml) / plastisolMl;
  }).value;
}

function Step({ material }: { material: Material }) {
  const taste = useTaste();
  const navigate = useNavigate();
  const [how, setHow] = useState<'typed' | 'photo'>('typed');
  const [begun] = useState<Typed>({
    amount: '',
    plastisolMl: 50,
    thicknessMm: usual('puckMm'),
    overBlack: '',
    overWhite: '',
  });
  const sheet = useSheet<Typed>({ schema: stepSheet, keep: `material/${material.id}/step`, seen: begun });
  const { values } = sheet;
  const mlPerL = doseOf(values, material, taste);
  const isRead = values.overBlack !== '' && values.overWhite !== '';
  const { thicknessMm } = values;
  const found = useMemo(() => {
    if (mlPerL === undefined || thicknessMm === null || !isRead) return undefined;
    return tried(() =>
      calibrate({
        thicknessMm,
        mlPerL,
        overBlack: linearOf(values.overBlack),
        overWhite: linearOf(values.overWhite),
        base: PLAIN_PLASTIC,
      }),
    );
  }, [mlPerL, thicknessMm, isRead, values.overBlack, values.overWhite]);
  const keep = useWrite<Material>(
    () => ({
      path: `/materials/${material.id}/steps`,
      body: {
        how,
        thicknessMm,
        mlPerL,
        overBlack: linearOf(values.overBlack),
        overWhite: linearOf(values.overWhite),
      },
    }),
    () => {
      sheet.done();
      navigate(`/store?material=${material.id}`);
    },
  );
  return (
    <Page
      title={`Measure ${material.name}`}
      tab="Measure"
      under="A step puck of known thickness and dose, laid half on white paper and half on a black ground. From then on its drops can be foreseen."
    >
      <ol className="list-decimal pl-5 max-w-3xl flex flex-col gap-1">
        <li>Cook a little plain plastisol, dose it, and pour a flat step; of a strong colour a thin one.</li>
        <li>Cold, lay it across white paper and something black, in daylight without sun, no flash.</li>
        <li>Take a picture that shows all four, or type both colours as a colour picker reads them.</li>
      </ol>
      <Sheet of={sheet} by={keep} onSend={() => keep.mutate()} className="flex flex-col gap-4">
        <div className="flex flex-wrap gap-4 items-start">
          <TextIn
            at="amount"
            className="w-44"
            hint={material.kind === 'colourant' ? 'such as 6 drops' : 'such as 1/8 tsp'}
          />
          <FigureIn at="plastisolMl" className="w-48" />
          <FigureIn at="thicknessMm" className="w-44" hint="measured, not meant" starts />
          <p className="mt-7">
            {mlPerL === undefined ? (
              <span className="soft">dose not known yet</span>
            ) : (
              <>
                <b className="figure text-xl">{mlPerL.toFixed(2)}</b> mL in a litre
              </>
            )}
          </p>
        </div>
        <TapPhoto
          places={['the step over white', 'the step over black']}
          onRead={([white, black]) => {
            setHow('photo');
            sheet.set('overWhite', white);
            sheet.set('overBlack', black);
          }}
        />
        <div className="flex flex-wrap gap-4 items-start">
          <TextIn at="overWhite" type="color" />
          <TextIn at="overBlack" type="color" />
          <div className="mt-5">
            <Send>Keep this measurement</Send>
          </div>
        </div>
      </Sheet>
      {found?.refused && <p className="warn font-bold">{taste.say(found.refused)}</p>}
      {found?.value && <AtAnOrdinaryDose material={material} optics={found.value} />}
      <Caution about={material.kind === 'powder' ? ['hot', 'powder'] : ['hot']} />
    </Page>
  );
}

/** What the measurement says: the colourant alone, at the dose that is ordinary for its kind. */
function AtAnOrdinaryDose({ material, optics }: { material: Material; optics: Optics }) {
  const mlPerL = ordinaryDose(material.kind);
  const melt = useMemo(
    () => meltOfIngredients([{ ...material, optics, mlPerL, gPerL: 0 }]),
    [material, optics, mlPerL],
  );
  return (
    <section className="flex flex-col gap-3">
      <h2>What that makes of it</h2>
      <p className="soft">
        Alone in plain plastisol, {mlPerL} mL in a litre <span className="default-mark">default</span>
      </p>
      <Wedge melt={melt} />
    </section>
  );
}
