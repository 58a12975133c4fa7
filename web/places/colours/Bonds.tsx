import type { Layer } from '../../../contract/colourways.ts';
import { usual } from '../../../core/defaults.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { type Bond, bondOf } from '../../../core/process/bond.ts';
import { durationText } from '../../../core/units/show.ts';
import { Caution } from '../../parts/Caution.tsx';
import { useTaste } from '../../parts/taste.tsx';

interface Props {
  layers: Layer[];
  /** Each where it is thickest, mm; null: nobody knows the shape. */
  thickMm: (number | null)[];
  /** Where it ends, mm over the middle of the bait’s height; null: not known, or nowhere. */
  lineMm: (number | null)[];
}

/** What keeps each layer on the one before it: what has to be cold, what has to be hot, and when they peel. */
export function Bonds({ layers, thickMm, lineMm }: Props) {
  const { text } = useTaste();
  return (
    <section>
      <h2 className="mb-1">What keeps them together</h2>
      <ul className="ruled border-y border-[var(--rule)]">
        {layers.slice(1).map((layer, i) => {
          if (!layer.joins) return null;
          const under = layers[i] as Layer;
          const bond = bondOf({ joins: layer.joins, underMm: thickMm[i] ?? null });
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
            <li key={i} className="py-2">
              <b>
                {PLACES[layer.place]} on {PLACES[under.place]}
              </b>
              <How bond={bond} under={PLACES[under.place]} />
              <Line mm={lineMm[i] ?? null} />
            </li>
          );
        })}
      </ul>
      <p className="label-small mt-1">
        Poured at {text(usual('layerPourC'), 'temperature')}, it fuses from {text(usual('fusesC'), 'temperature')}, firm
        at {text(usual('firmC'), 'temperature')}, in a rubber mold in a room of {text(usual('roomC'), 'temperature')}{' '}
        <span className="default-mark">default</span>. Where nothing of it is done, layers peel apart.
      </p>
      {layers.some(({ joins }) => joins === 'melted' || joins === 'hot') && <Caution about={['hot']} />}
    </section>
  );
}

function How({ bond, under }: { bond: Bond; under: string }) {
  const { text } = useTaste();
  const c = (value: number) => <b className="figure">{text(value, 'temperature')}</b>;
  if (bond.holds === 'yes')
    return (
      <p>Both are hot where they meet, {c(bond.meetC)}: they are one piece. Equal heat in all cups, warm injectors.</p>
    );
  if (bond.holds === 'no')
    return <p className="warn font-bold">They meet at {c(bond.meetC)}, too cold to fuse: they peel.</p>;
  if (bond.holds === 'if-cooked')
    return (
      <p>They only lie on each other until all are cooked together, to {c(usual('fusesC'))} or more all through.</p>
    );
  if (bond.holds === 'if-hot')
    return (
      <p>
        In a mold that is kept hot they meet at {c(bond.meetC)} and fuse; below {c(bond.neededC)} in the {under} they
        peel.
      </p>
    );
  return (
    <p>
      On a cold {under} it would meet at {c(bond.meetC)} and peel. Let the {under} stand{' '}
      {bond.firmAfterS === null ? (
        'until it is cold and firm (how long is not known: its shape is not)'
      ) : (
        <>
          about <b className="figure">{durationText(bond.firmAfterS)}</b>, until it is cold and firm
        </>
      )}
      ; then melt its surface with the heat gun until it shines, and pour at once.
    </p>
  );
}

/** Where two melts meet, by the bait's own shape. */
function Line({ mm }: { mm: number | null }) {
  const { text } = useTaste();
  if (mm === null) return null;
  return (
    <p className="soft">
      The line between them lies {Math.abs(mm) < 0.05 ? 'at' : <b className="figure">{text(Math.abs(mm), 'length')}</b>}
      {Math.abs(mm) < 0.05 ? '' : mm > 0 ? ' over' : ' under'} the middle of its height.
    </p>
  );
}
