import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import type { ColourLookOf } from '../../../contract/looks.ts';
import type { Material } from '../../../contract/materials.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { meltOfIngredients } from '../../../core/colour/foresee.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { hexOf, layerOver, mixedOptics, type Optics, type Rgb } from '../../../core/colour/light.ts';
import type { MatchInput } from '../../../core/colour/match.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { usual } from '../../../core/defaults.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { cupsText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { QuantityField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { asColourant, bottlesHere } from '../../parts/plastic/bottles.ts';
import { meltOfItems } from '../../parts/plastic/melts.ts';
import { TapPhoto } from '../../parts/plastic/TapPhoto.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { DrawnWish } from './DrawnWish.tsx';
import { Nearest } from './Nearest.tsx';
import { NearestInTheBook } from './NearestInTheBook.tsx';
import { useMatch } from './useMatch.ts';
import { WantedColour } from './WantedColour.tsx';

const WHITE: Rgb = [1, 1, 1];
const SEED = 1;

export function Match() {
  const [search] = useSearchParams();
  const materials = useQuery(queries.materials);
  const recipes = useQuery(queries.recipes);
  const looks = useQuery(queries.newestLooks).data?.items ?? [];
  const binId = search.get('bin');
  const bin = useQuery({ ...queries.bin(binId ?? ''), enabled: binId !== null }).data;
  if (!materials.data || !recipes.data || (binId !== null && !bin)) return <Waiting />;
  const like = recipes.data.items.find((one) => one.id === search.get('like')) ?? null;
  return (
    <Matching
      key={search.toString()}
      materials={materials.data.items}
      recipes={inUse(recipes.data.items)}
      like={like}
      withoutId={search.get('without')}
      looks={looks}
      scrap={
        bin?.colour ? { name: bin.name, optics: bin.colour.optics, share: Number(search.get('share') ?? 1) } : null
      }
      startHex={search.get('hex')}
    />
  );
}

interface Props {
  materials: Material[];
  recipes: RecipeRow[];
  /** A recipe that is to look the same without something that is out. */
  like: RecipeRow | null;
  withoutId: string | null;
  /** Pours and cups that were looked at. */
  looks: ColourLookOf[];
  /** Remelt that so much of the cup is made of. */
  scrap: { name: string; optics: Optics; share: number } | null;
  startHex: string | null;
}

/** A cup's plastic, so much of it remelt. */
const plasticOf = (scrap: Props['scrap']): Optics =>
  scrap ? mixedOptics(scrap.optics, PLAIN_PLASTIC, scrap.share) : PLAIN_PLASTIC;

function Matching({ materials, recipes, like, withoutId, looks, scrap, startHex }: Props) {
  const taste = useTaste();
  const { text, measures } = taste;
  const [hex, setHex] = useState(startHex ?? '#2f7d5c');
  const [thicknessMm, setThickness] = useState<number | null>(usual('matchedAtMm'));
  const [batchMl, setBatch] = useState<number | null>(like?.revision.basisMl ?? ML_PER_CUP);
  const out = materials.find((one) => one.id === withoutId);
  const [powders, setPowders] = useState(out?.kind === 'powder');
  const here = useMemo(
    () => bottlesHere(materials, taste, { withoutId, powders }),
    [materials, withoutId, taste, powders],
  );
  /** What stays in the cup as it is, and how the recipe looks as it was. */
  const kept = useMemo(() => {
    if (!like || thicknessMm === null) return null;
    const { items, basisMl } = like.revision;
    const whole = meltOfItems(items, basisMl, measures).optics;
    const rest = items.filter((item) => item.materialId !== withoutId);
    const stays = meltOfIngredients(ingredientsOf(rest, basisMl, measures)).optics;
    return { stays, target: layerOver(whole, thicknessMm, WHITE) };
  }, [like, withoutId, thicknessMm, measures]);
  const wish = useMemo<MatchInput | null>(() => {
    if (here.length === 0 || thicknessMm === null || batchMl === null) return null;
    return {
      target: kept ? kept.target : hex,
      thicknessMm,
      background: WHITE,
      base: kept?.stays ?? plasticOf(scrap),
      fixed: [],
      colourants: here.map(asColourant),
      batchMl,
      wholeDrops: true,
      maxColourants: kept ? 3 : 4,
      timeLimitMs: 1000,
      seed: SEED,
    };
  }, [here, kept, hex, thicknessMm, batchMl, scrap]);
  const { found, problem } = useMatch(wish);
  const wanted = kept ? hexOf(kept.target) : hex;
  return (
    <Page
      title={out && like ? `Without ${out.name}` : 'Match a colour'}
      tab="Match"
      under={
        like
          ? `What keeps ${like.name} looking as it does, out of what is in store; all else of it stays as it is.`
          : 'Which drops of what is in store come nearest to a colour, and how far off that is.'
      }
    >
      <div className="flex flex-wrap gap-4 items-end">
        {!like && (
          <WantedColour
            hex={hex}
            recipes={recipes}
            looks={looks}
            onTake={(next, mm) => {
              setHex(next);
              if (mm !== undefined) setThickness(mm);
            }}
          />
        )}
        <QuantityField
          label="At a thickness of"
          dimension="length"
          value={thicknessMm}
          onChange={setThickness}
          className="w-40"
        />
        {!like && (
          <QuantityField
            label="For a batch of"
            dimension="volume"
            value={batchMl}
            onChange={setBatch}
            className="w-40"
          />
        )}
        <p className="pb-6 figure">{batchMl !== null && cupsText(batchMl)}</p>
      </div>
      {scrap && !like && (
        <p>
          <b className="figure">{Math.round(100 * scrap.share)} %</b> of the cup’s plastic is {scrap.name}: the drops
          are for what that lacks.
        </p>
      )}
      {materials.some(({ kind }) => kind === 'powder') && <WithPowders on={powders} onTurn={setPowders} />}
      {!like && <OffAPicture onTake={setHex} />}
      {here.length === 0 && (
        <p className="text-lg soft">No liquid colour with a look is in store: add one there first.</p>
      )}
      {problem && <p className="warn font-bold">{taste.say(problem)}</p>}
      {wish && !found && !problem && <p className="soft">Looking through {here.length} bottles …</p>}
      {found && wish && (
        <Nearest
          found={found}
          wish={wish}
          wanted={wanted}
          here={here}
          {...(like ? { replacing: { recipe: like, withoutId, name: out?.name ?? 'it' } } : {})}
          thickText={text(wish.thicknessMm, 'length')}
        />
      )}
      {thicknessMm !== null && (
        <NearestInTheBook recipes={recipes.filter((one) => one !== like)} wanted={wanted} thicknessMm={thicknessMm} />
      )}
    </Page>
  );
}

const WithPowders = ({ on, onTurn }: { on: boolean; onTurn(on: boolean): void }) => (
  <label className="flex gap-3 items-center">
    <input type="checkbox" className="checkbox" checked={on} onChange={(event) => onTurn(event.target.checked)} />
    powders and pearls too, in 64ths of a teaspoon
  </label>
);

/** The wish read off a picture, or painted. */
const OffAPicture = ({ onTake }: { onTake(hex: string): void }) => (
  <>
    <TapPhoto places={['the colour that is wanted']} onRead={([read]) => read && onTake(read)} />
    <details>
      <summary className="link cursor-pointer">or paint it on the bait</summary>
      <div className="mt-3">
        <DrawnWish onTake={onTake} />
      </div>
    </details>
  </>
);
