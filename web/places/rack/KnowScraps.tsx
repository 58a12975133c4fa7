import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import type { Bin, BinWithMoves } from '../../../contract/bins.ts';
import { inUse } from '../../../contract/fields.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { lookHex, lookOf } from '../../../core/colour/look.ts';
import { usual } from '../../../core/defaults.ts';
import type { Between } from '../../../core/plastisol/between.ts';
import { BUBBLES_SEEN, FLAKE_SEEN, type Known } from '../../../core/plastisol/know.ts';
import { type AddWish, MOST_SALT_WISHED } from '../../../core/plastisol/toAdd.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { QuantityField, SelectField } from '../../parts/Fields.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { asColourant, type Bottle, bottlesHere, dropsText } from '../../parts/plastic/bottles.ts';
import { meltOfItems } from '../../parts/plastic/melts.ts';
import { TapPhoto } from '../../parts/plastic/TapPhoto.tsx';
import { ShareSlider } from '../../parts/ShareSlider.tsx';
import { ChoiceIn, choices, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { unknownText } from '../../parts/words/colour.ts';
import { inputOf, usePuck } from './usePuck.ts';

const FLAKE = { none: 'no flake', some: 'some flake', much: 'much flake' } as const;
const BUBBLES = { none: 'none', few: 'a few', foamy: 'foamy all through' } as const;

/** What given baits and unknown remelt are made of, from one puck of them. */
export function KnowScraps() {
  const { id = '' } = useParams();
  const { data: bin, error } = useQuery(queries.bin(id));
  if (isGone(error, bin)) return <Missing error={error} back="The rack" backTo="/rack" />;
  return bin ? <Puck key={bin.id} bin={bin} /> : <Waiting />;
}

/** A colour that the scrap is to become, out of what is in store. */
function useWish() {
  const taste = useTaste();
  const recipes = inUse(useQuery(queries.recipes).data?.items ?? []);
  const materials = useQuery(queries.materials).data?.items;
  const [recipeId, setRecipe] = useState('');
  const [share, setShare] = useState(100);
  const [batchMl, setBatch] = useState<number | null>(ML_PER_CUP);
  const here = useMemo(() => bottlesHere(materials ?? [], taste), [materials, taste]);
  const recipe = recipes.find((one) => one.id === recipeId);
  const wish = useMemo<AddWish | null>(() => {
    if (!recipe || batchMl === null || here.length === 0) return null;
    const { items, basisMl } = recipe.revision;
    const salt = ingredientsOf(items, basisMl, taste.measures).filter(({ kind }) => kind === 'salt');
    const saltGPerL = salt.reduce((sum, { gPerL }) => sum + gPerL, 0);
    return {
      target: { linear: lookOf(meltOfItems(items, basisMl, taste.measures).optics) },
      thicknessMm: usual('matchedAtMm'),
      scrapShare: share / 100,
      saltFraction: Math.min(MOST_SALT_WISHED, saltGPerL / (saltGPerL + 1000 * usual('plastisolGPerMl'))),
      colourants: here.map(asColourant),
      batchMl,
      seed: 1,
    };
  }, [recipe, batchMl, here, share, taste.measures]);
  return { recipes, recipeId, setRecipe, share, setShare, batchMl, setBatch, here, wish, recipe };
}

function Puck({ bin }: { bin: BinWithMoves }) {
  const wished = useWish();
  const { say } = useTaste();
  const { sheet, known, problem } = usePuck(bin, wished.wish);
  const keep = useWrite<Bin>(
    () => ({ path: `/bins/${bin.id}/pucks`, body: inputOf(sheet.values) ?? {} }),
    () => {
      sheet.startAfresh();
      sheet.done();
    },
  );
  return (
    <Page
      title={`What is in ${bin.name}?`}
      tab="Scraps"
      under="One puck tells: weighed, sunk, pressed and looked at. Each figure lies between the two beside it in 95 of 100."
    >
      <ol className="list-decimal pl-5 max-w-3xl flex flex-col gap-1">
        <li>Cut a handful of everything in the bin alike, melt it, stir, let the air out, and pour a flat puck.</li>
        <li>
          Cold, weigh it; hang it on a thread in a glass of water on the scale and weigh again, or read how far the
          water rises.
        </li>
        <li>Press it three times or more; lay it half on white paper and half on black, and take a picture.</li>
      </ol>
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_340px] gap-10">
        <Sheet of={sheet} by={keep} onSend={() => keep.mutate()} className="flex flex-col gap-4">
          <div className="flex flex-wrap gap-4 items-start">
            <FigureIn at="massG" className="w-40" />
            <FigureIn at="inWaterG" className="w-52" hint="the nearer of the two" />
            <FigureIn at="volumeMl" className="w-52" />
          </div>
          <div className="flex flex-wrap gap-4 items-start">
            <ChoiceIn at="flake" className="w-44" options={choices(FLAKE_SEEN, FLAKE)} />
            <ChoiceIn at="bubbles" className="w-48" options={choices(BUBBLES_SEEN, BUBBLES)} />
            <TextIn at="pressed" className="w-48" hint="such as 48 51 50" />
            <ChoiceIn
              at="scale"
              className="w-40"
              options={[
                { value: '00', label: 'Shore 00' },
                { value: 'A', label: 'Shore A' },
              ]}
            />
          </div>
          <TapPhoto
            places={['the puck over white', 'the puck over black']}
            onRead={([white, black]) => {
              sheet.set('overWhite', white);
              sheet.set('overBlack', black);
            }}
          />
          <div className="flex flex-wrap gap-4 items-start">
            <FigureIn at="thicknessMm" className="w-40" starts />
            <TextIn at="overWhite" type="color" />
            <TextIn at="overBlack" type="color" />
          </div>
          <Wished {...wished} />
          <Send>Keep what it tells</Send>
          <Caution about={['hot', 'remelt']} />
        </Sheet>
        <section aria-live="polite" className="flex flex-col gap-4">
          {problem && <p className="warn font-bold">{say(problem)}</p>}
          {known ? <Tells known={known} here={wished.here} name={wished.recipe?.name} /> : <Before bin={bin} />}
        </section>
      </div>
    </Page>
  );
}

function Wished({ recipes, recipeId, setRecipe, share, setShare, batchMl, setBatch }: ReturnType<typeof useWish>) {
  if (recipes.length === 0) return null;
  return (
    <div className="flex flex-wrap gap-4 items-end border-t border-[var(--rule)] pt-3">
      <SelectField<string>
        label="It is to become"
        value={recipeId}
        options={[
          { value: '', label: 'only to know it' },
          ...recipes.map((one) => ({ value: one.id, label: one.name })),
        ]}
        onChange={setRecipe}
        className="w-56"
      />
      {recipeId !== '' && (
        <>
          <ShareSlider value={share} min={10} onChange={setShare} says="is this" before="of the cup’s plastic " />
          <QuantityField
            label="For a batch of"
            dimension="volume"
            value={batchMl}
            onChange={setBatch}
            className="w-40"
          />
        </>
      )}
    </div>
  );
}

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

function Row({ label, of, as }: { label: string; of: Between; as(value: number): string }) {
  return (
    <div>
      <p className="label-small">{label}</p>
      <p>
        <b className="figure text-3xl">{as(of.value)}</b>{' '}
        <span className="figure soft ml-2">
          {as(of.low)} to {as(of.high)}
        </span>
      </p>
    </div>
  );
}

/** What a puck tells, each figure with what it lies between. */
function Tells({ known, here, name }: { known: Known; here: Bottle[]; name?: string | undefined }) {
  const { text } = useTaste();
  const { salt, densityGPerMl, hardness, colour, toAdd, widenedBy } = known;
  return (
    <>
      <Row label="salt, of its mass" of={salt} as={percent} />
      <Row label="density, g/mL" of={densityGPerMl} as={(one) => one.toFixed(3)} />
      {hardness && <Row label={`hardness, Shore ${hardness.scale}`} of={hardness} as={(one) => one.toFixed(0)} />}
      {colour && (
        <div>
          <p className="label-small">{text(usual('matchedAtMm'), 'length')} over white</p>
          <div className="flex gap-3 items-center">
            <span className="w-24 h-12 border border-[var(--edge)]" style={{ background: colour.hex }} />
            <span>
              give or take ΔE <b className="figure">{colour.deltaE95.toFixed(1)}</b>
            </span>
          </div>
        </div>
      )}
      {widenedBy.length > 0 && <p className="warn">Wider for {widenedBy.join(' and ')}.</p>}
      {toAdd && name && (
        <div>
          <h2>To make it {name}</h2>
          <p>
            ΔE <b className="figure text-2xl">{toAdd.deltaE00.value.toFixed(1)}</b>{' '}
            <span className="soft figure ml-2">
              {toAdd.deltaE00.low.toFixed(1)} to {toAdd.deltaE00.high.toFixed(1)}
            </span>
          </p>
          <ul className="ruled border-y border-[var(--rule)] mt-1">
            {toAdd.items.map(({ id, drops, mlPerL }) => {
              const one = here.find(({ material }) => material.id === id);
              if (!one) return null;
              const { figure, unit } = dropsText(one, drops);
              // As far as the scrap's own colour is sure.
              const each = mlPerL.value > 0 ? drops / mlPerL.value : 0;
              return (
                <li key={id} className="flex gap-3 items-baseline py-2 flex-wrap">
                  <span
                    className="w-4 h-4 rounded-full border border-[var(--ink)]"
                    style={{ background: one.material.hex ?? 'none' }}
                  />
                  <b className="flex-1">{one.material.name}</b>
                  <span>
                    <b className="figure text-2xl">{figure}</b> {unit}
                  </span>
                  <span className="figure soft text-sm">
                    {Math.floor(mlPerL.low * each)} to {Math.ceil(mlPerL.high * each)}
                  </span>
                </li>
              );
            })}
            {toAdd.items.length === 0 && <li className="py-2">No colour: nothing in store brings it nearer.</li>}
          </ul>
          {toAdd.saltGPer100G && (
            <p className="mt-1">
              {toAdd.saltGPer100G.value > 0.05 ? (
                <>
                  Salt: <b className="figure">{text(toAdd.saltGPer100G.value, 'mass')}</b> to each {text(100, 'mass')},{' '}
                  <span className="figure soft">
                    {text(toAdd.saltGPer100G.low, 'mass')} to {text(toAdd.saltGPer100G.high, 'mass')}
                  </span>
                </>
              ) : (
                'No salt: there is as much in it already.'
              )}
            </p>
          )}
        </div>
      )}
    </>
  );
}

/** What is known of the bin before another puck is typed. */
function Before({ bin }: { bin: BinWithMoves }) {
  const { text } = useTaste();
  return (
    <>
      {bin.puck ? (
        <>
          <h2>What the last puck told</h2>
          <Tells known={bin.puck.output} here={[]} />
        </>
      ) : (
        <p className="soft">Weigh it in air and in water, and its salt stands here.</p>
      )}
      {bin.colour && (
        <div className="flex gap-3 items-center">
          <span className="w-24 h-12 border border-[var(--edge)]" style={{ background: lookHex(bin.colour.optics) }} />
          <span>
            by what went in, {text(usual('matchedAtMm'), 'length')} over white
            <b className="warn block">{unknownText(bin.colour)}</b>
          </span>
        </div>
      )}
    </>
  );
}
