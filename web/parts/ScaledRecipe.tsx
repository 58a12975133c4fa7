import type { RecipeItem } from '../../contract/recipes.ts';
import type { ScaledItem, Spoon } from '../../core/plastisol/recipe.ts';
import { useTaste } from './taste.tsx';

const SPOON_SIZE: Record<string, number> = {
  '1': 30,
  '1/2': 25,
  '1/4': 21,
  '1/8': 17,
  '1/16': 14,
  '1/32': 11,
  '1/64': 9,
};

/** Spoons to level off, each drawn as often as it is used. */
export function Spoons({ spoons }: { spoons: Spoon[] }) {
  return (
    <span className="flex gap-3 items-end flex-wrap">
      {spoons.map(({ tsp, count }) => {
        const r = (SPOON_SIZE[tsp] ?? 9) / 2;
        return (
          <span key={tsp} className="flex items-end gap-1">
            <svg width={r * 2 + 18} height={r * 2 + 2} aria-hidden="true">
              <circle cx={r + 1} cy={r + 1} r={r} fill="var(--liquid)" stroke="var(--ink)" strokeWidth={1.6} />
              <line x1={r * 2 + 1} x2={r * 2 + 17} y1={r + 1} y2={r + 1} stroke="var(--ink)" strokeWidth={3} />
            </svg>
            <span className="figure text-sm">
              {count > 1 && `${count} × `}
              {tsp}
            </span>
          </span>
        );
      })}
      <span className="label-small">tsp</span>
    </span>
  );
}

/** What to put in, as it is measured at the bench, the exact amount beside it. */
export function ScaledRow({
  item,
  scale,
  large,
}: {
  item: Pick<RecipeItem, 'materialName' | 'hex' | 'materialKind'>;
  scale: ScaledItem;
  large?: boolean;
}) {
  const { text } = useTaste();
  const exact = `${Number(scale.amount.toPrecision(4))} ${scale.unit}`;
  const practical =
    scale.drops !== undefined ? (
      <span className={`figure ${large ? 'text-4xl' : 'text-2xl'}`}>
        {scale.drops} <span className="text-base">{scale.drops === 1 ? 'drop' : 'drops'}</span>
      </span>
    ) : scale.spoons && scale.spoons.length > 0 ? (
      <Spoons spoons={scale.spoons} />
    ) : scale.spoons ? (
      <span className="warn font-bold">under 1/64 tsp</span>
    ) : (
      <span className={`figure ${large ? 'text-4xl' : 'text-2xl'}`}>
        {scale.g !== undefined && scale.ml === undefined ? text(scale.g, 'mass') : exact}
      </span>
    );
  const error = Math.round(scale.roundingFraction * 1000) / 10;
  return (
    <li className="grid grid-cols-[18px_minmax(0,1fr)] sm:grid-cols-[18px_minmax(130px,1fr)_minmax(150px,auto)_minmax(130px,auto)] gap-4 items-center py-2.5">
      <span
        className="w-4 h-4 rounded-full border border-[var(--ink)]"
        style={{ background: item.hex ?? 'transparent' }}
      />
      <span>
        <span className="font-bold block">{item.materialName}</span>
        <span className="label-small">{item.materialKind}</span>
      </span>
      {practical}
      <span className="text-right">
        {(error !== 0 || scale.drops === undefined) && <span className="label-small figure block">{exact}</span>}
        {scale.g !== undefined && (
          <span className="label-small block">
            <span className="figure">{text(scale.g, 'mass')}</span>
            {scale.gByDefault && <span className="default-mark"> default</span>}
          </span>
        )}
        {error !== 0 && (
          <span className={`figure text-xs ${scale.tooCoarse ? 'warn font-bold' : 'soft'}`}>
            {error > 0 ? '+' : '−'}
            {Math.abs(error)} %
          </span>
        )}
        {scale.tooCoarse && (
          <span className="warn font-bold text-sm block">
            {scale.g !== undefined ? `weigh it instead: ${text(scale.g, 'mass')}` : 'weigh it instead, or cook more'}
          </span>
        )}
      </span>
    </li>
  );
}
