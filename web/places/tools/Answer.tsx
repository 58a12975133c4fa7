import { lazy, Suspense } from 'react';
import { kindOf, wordFor } from '../../../core/fields.ts';
import type { PlanInput, SiliconePlan } from '../../../core/mold/silicone.ts';
import { usableMl } from '../../../core/plan/glasses.ts';
import { inGlasses } from '../../../core/plastisol/batch.ts';
import type { ScaledItem } from '../../../core/plastisol/recipe.ts';
import { cupsText, durationText } from '../../../core/units/show.ts';
import { BoxDrawing } from '../../parts/BoxDrawing.tsx';
import { Cylinder } from '../../parts/Cylinder.tsx';
import { Glass } from '../../parts/Glass.tsx';
import { ScaledRow } from '../../parts/ScaledRecipe.tsx';
import { type Taste, useTaste } from '../../parts/taste.tsx';

const LineChart = lazy(() => import('../../parts/Chart.tsx').then((module) => ({ default: module.LineChart })));

type Values = Record<string, unknown>;

/** A number of an answer as it is read at the bench. */
export function shown(name: string, value: unknown, taste: Taste): string {
  if (value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map((part) => shown(name, part, taste)).join(', ') || 'none';
  if (typeof value !== 'number') return String(value);
  const kind = kindOf(name);
  if (kind === 'money') return taste.money(value);
  if (kind === 'percent') return `${(value * 100).toFixed(1)} %`;
  if (kind === 'minutes') return value < 0 ? `past by ${durationText(-value * 60)}` : durationText(value * 60);
  if (kind === 'seconds') return value < 0 ? `past by ${durationText(-value)}` : durationText(value);
  if (kind === 'plain') return name === 'cups' ? `${value.toFixed(2)} cups` : String(Number(value.toPrecision(4)));
  return taste.text(value, kind);
}

/** The answer, drawn where the thing can be drawn, then every figure of it. */
export function Answer({ name, input, output }: { name: string; input: Values; output: Values }) {
  return (
    <div className="flex flex-col gap-5">
      <Drawn name={name} input={input} output={output} />
      <Figures values={output} large />
    </div>
  );
}

function Figures({ values, large, named }: { values: Values; large?: boolean; named?: boolean }) {
  const taste = useTaste();
  const entries = Object.entries(values);
  const isSentence = (value: unknown) => typeof value === 'string' && value.length > 30;
  const isThing = (value: unknown) => typeof value === 'object' && value !== null;
  // A place or a range is read on one line.
  const isRow = (value: unknown) => Array.isArray(value) && !value.some(isThing);
  const plain = entries.filter(([, value]) => !isSentence(value) && (!isThing(value) || isRow(value)));
  const sentences = entries.filter(([, value]) => isSentence(value));
  const nested = entries.filter(([, value]) => isThing(value) && !isRow(value));
  return (
    <div className="flex flex-col gap-4">
      {sentences.map(([key, value]) => (
        <p key={key} className="text-lg font-bold">
          {String(value)}
        </p>
      ))}
      <dl className="flex flex-wrap gap-x-9 gap-y-3">
        {plain.map(([key, value]) => (
          <div key={key}>
            <dt className="label-small">{named ? key : wordFor(key)}</dt>
            <dd className={large && !Array.isArray(value) ? 'big' : 'figure text-lg'}>{shown(key, value, taste)}</dd>
          </div>
        ))}
      </dl>
      {nested.map(([key, value]) => (
        <section key={key}>
          <h3 className="mb-1">{wordFor(key)}</h3>
          {Array.isArray(value) ? (
            <ol className="ruled">
              {value.map((row, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: rows of an answer come in a fixed order
                <li key={index} className="py-1.5">
                  <Figures values={row as Values} />
                </li>
              ))}
            </ol>
          ) : (
            <Figures
              named
              values={Object.fromEntries(
                Object.entries(value as Values).map(([id, part]) => [
                  id,
                  key === 'fractions'
                    ? `${((part as number) * 100).toFixed(1)} %`
                    : key === 'grams'
                      ? taste.text(part as number, 'mass')
                      : part,
                ]),
              )}
            />
          )}
        </section>
      ))}
    </div>
  );
}

function Drawn({ name, input, output }: { name: string; input: Values; output: Values }) {
  const { workshop, text } = useTaste();
  if (name === 'silicone.plan') {
    const planned = output as unknown as SiliconePlan;
    const { masters } = input as unknown as PlanInput;
    const [first, pour] = [masters[0], planned.pours[0]];
    const count = masters.reduce((sum, master) => sum + (master.count ?? 1), 0);
    return first && pour ? (
      <div className="flex flex-wrap gap-6">
        <BoxDrawing plan={planned} master={{ ...first, shape: 'paddle' }} count={count} widthPx={460} heightPx={300} />
        <div className="flex flex-wrap">
          <Cylinder title="Part A" note="" ml={pour.mlA} grams={pour.gramsA} heightPx={180} widthPx={80} />
          <Cylinder title="Part B" note="" ml={pour.mlB} grams={pour.gramsB} heightPx={180} widthPx={56} />
        </div>
      </div>
    ) : null;
  }
  if (name === 'silicone.topUp') {
    const { gramsA, gramsB, mlA, mlB } = output as Record<'gramsA' | 'gramsB' | 'mlA' | 'mlB', number>;
    return (
      <div className="flex flex-wrap">
        <Cylinder title="Part A" note="" ml={mlA} grams={gramsA} heightPx={180} widthPx={80} />
        <Cylinder title="Part B" note="" ml={mlB} grams={gramsB} heightPx={180} widthPx={56} />
      </div>
    );
  }
  if (name === 'recipe.scale') {
    return (
      <ul className="ruled">
        {(output.items as ScaledItem[]).map((item) => (
          <ScaledRow key={item.id} item={{ materialName: item.id, hex: null, materialKind: '' }} scale={item} large />
        ))}
      </ul>
    );
  }
  if (typeof output.cookMl === 'number') {
    const { glasses, fill } = inGlasses(output.cookMl, usableMl(workshop.glassMl));
    return (
      <div className="flex gap-5 items-end">
        <Glass hex="#7d9a55" fill={fill} glasses={glasses} label={text(output.cookMl, 'volume')} />
        <p className="figure text-2xl">{cupsText(output.cookMl)}</p>
      </div>
    );
  }
  if (name === 'yield.chart') {
    const points = output.points as { p: number; ucl: number; lcl: number }[];
    return (
      <Suspense fallback={null}>
        <LineChart
          says={`Rejects of ${points.length} pours with their limits`}
          unit=" %"
          heightPx={220}
          labels={points.map((_, index) => String(index + 1))}
          series={[
            { label: 'upper limit', values: points.map((point) => point.ucl * 100), colour: '--edge', stepped: true },
            { label: 'lower limit', values: points.map((point) => point.lcl * 100), colour: '--edge', stepped: true },
            { label: 'rejects', values: points.map((point) => point.p * 100), colour: '--heat', points: true },
          ]}
        />
      </Suspense>
    );
  }
  return null;
}
