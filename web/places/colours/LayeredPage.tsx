import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Colourway, Layer } from '../../../contract/colourways.ts';
import { filledMl, seamsOf } from '../../../core/colour/layered.ts';
import { partsIn, thickAtMiddle } from '../../../core/colour/solidSeen.ts';
import { tried } from '../../../core/failure.ts';
import { JOINS, layersOfShot, levelsIn, PLACES } from '../../../core/plan/layers.ts';
import { percentText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { Caution } from '../../parts/Caution.tsx';
import { ComplaintsAbout } from '../../parts/Complaints.tsx';
import { dateText } from '../../parts/dates.ts';
import { DrawnFor, LayerSection } from '../../parts/LayerSection.tsx';
import { Page } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { PutAway } from '../../parts/PutAway.tsx';
import { plateOf } from '../../parts/plastic/BaitInPlastic.tsx';
import { NoShape, useSeenIn } from '../../parts/plastic/Foreseen.tsx';
import { LayeredBait, partsOf, useMelts } from '../../parts/plastic/LayeredBait.tsx';
import { LayeredSolid } from '../../parts/plastic/LayeredSolid.tsx';
import { MIDDLE_CUT, useChords, useSolidOf } from '../../parts/plastic/useChords.ts';
import { Stood } from '../../parts/Stood.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { AccentsOf } from './AccentsOf.tsx';
import { Bonds } from './Bonds.tsx';
import { Marks, WhereUsed } from './Marks.tsx';

/** How much of a bait a layer is, as it was written. */
function useAmount() {
  const { text } = useTaste();
  return ({ measure, amount }: Layer) =>
    measure === 'rest' || amount === null
      ? 'the rest'
      : measure === 'share'
        ? `${percentText(amount)} of the bait`
        : measure === 'level'
          ? `up to ${percentText(amount)} of its height`
          : `${text(amount, 'volume')} in each bait`;
}

/** Its melts in the bait that is chosen: how much of it each is, how thick in its middle, and where they meet. */
function useInABait(colour: Colourway) {
  const seen = useSeenIn();
  const { data: side } = useChords(seen.meshId);
  const { data: above } = useChords(seen.meshId, 'large', 'above');
  const { data: solid } = useSolidOf(seen.meshId);
  const melts = useMelts(colour.layers);
  const known = useMemo(() => {
    if (!side || !melts) return null;
    const parts = partsOf(colour.layers, melts, side);
    const seams = seamsOf(parts, side);
    const middle = solid?.sections[MIDDLE_CUT];
    const thick = middle && thickAtMiddle(middle, partsIn(middle, seams));
    return {
      eachMl: parts.map(({ share }) => share * filledMl(side)),
      thickMm: parts.map((_, i) => thick?.get(i) ?? null),
      lineMm: parts.map((_, i) => {
        const toMm = seams.stack.find(({ part }) => part === i)?.toMm;
        return toMm !== undefined && Number.isFinite(toMm) ? toMm : null;
      }),
    };
  }, [colour.layers, melts, side, solid]);
  return { ...seen, side, above, melts, known };
}

/** All its melts in one bait: from the side, from above through the back, as a solid, and cut across. */
function InItsLayers({ colour, inABait }: { colour: Colourway; inABait: ReturnType<typeof useInABait> }) {
  const { meshId, ground, controls, bait, side, above, melts } = inABait;
  if (meshId === null) return <NoShape>No bait has a shape here yet, so its layers are only drawn cut across.</NoShape>;
  const name = `${bait} in ${colour.name}`;
  return (
    <section className="flex flex-col gap-4">
      <div className="flex flex-wrap gap-4 items-end no-print">{controls}</div>
      {side && melts ? (
        <LayeredSolid
          meshId={meshId}
          layers={colour.layers}
          melts={melts}
          side={side}
          ground={ground}
          name={name}
          picture={
            <div className="p-4 border border-[var(--edge)]" style={{ background: plateOf(ground) }}>
              <LayeredBait layers={colour.layers} melts={melts} side={side} above={above} ground={ground} name={name} />
            </div>
          }
        />
      ) : (
        <div className="h-40 soft">Drawing {bait} …</div>
      )}
      <p className="label-small">
        Levels by its own volume; the belly shows through a back that is thin. Where two melts met hot they blur, which
        is not drawn.
      </p>
    </section>
  );
}

/** A colour of several melts: cut across, layer by layer, with how each comes to hold on the one before. */
export function LayeredPage({ colour }: { colour: Colourway }) {
  const amount = useAmount();
  const inABait = useInABait(colour);
  const nothing = colour.layers.map(() => null);
  const { eachMl = nothing, thickMm = nothing, lineMm = nothing } = inABait.known ?? {};
  const older = colour.revisions.slice(1);
  return (
    <Page
      title={
        <span>
          {colour.name} <span className="figure text-xl soft">v{colour.revision.number}</span>
        </span>
      }
      tab={colour.name}
      under={`${colour.layers.length} layers. v${colour.revision.number}: “${colour.revision.reason}”.${colour.baits > 0 ? ` ${colour.baits} on the rack.` : ''}`}
      actions={
        <>
          <button type="button" className="btn btn-line" onClick={() => window.print()}>
            Print the card
          </button>
          <Link to={`/colours/${colour.id}/layers`} className="btn btn-line">
            Change it
          </Link>
          <Link to={`/pours/new?colour=${colour.id}`} className="btn btn-accent">
            Pour it
          </Link>
        </>
      }
    >
      <InItsLayers colour={colour} inABait={inABait} />
      <div className="grid grid-cols-1 md:grid-cols-[300px_minmax(0,1fr)] gap-12">
        <div className="flex flex-col gap-6 items-start">
          {inABait.meshId === null && (
            <div className="flex flex-col gap-3">
              <LayerSection layers={colour.layers} sizePx={280} name={colour.name} />
              <DrawnFor layers={colour.layers} />
            </div>
          )}
          <AccentsOf colour={colour} eachMl={eachMl} />
        </div>
        <section>
          <h2 className="mb-2">As it goes in</h2>
          <ol className="ruled border-y border-[var(--rule)]">
            {colour.layers.map((layer, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
              <li key={i} className="grid grid-cols-[28px_110px_1fr] gap-4 py-3 items-start">
                <span className="w-6 h-6 rounded-full border-2 border-[var(--ink)]" style={{ background: layer.hex }} />
                <b>{PLACES[layer.place]}</b>
                <span>
                  <Link to={`/colours/${layer.recipeId}`} className="link font-bold">
                    {layer.recipeName}
                  </Link>
                  , {amount(layer)}
                  {layer.joins && <span className="block soft">{JOINS[layer.joins]}</span>}
                  {layer.wanted && (
                    <span className="block soft">
                      hardness {layer.wanted.value} on the {layer.wanted.scale} scale
                    </span>
                  )}
                </span>
              </li>
            ))}
          </ol>
          <div className="mt-6">
            <Bonds layers={colour.layers} thickMm={thickMm} lineMm={lineMm} />
          </div>
          <InEachMold colour={colour} />
          {colour.notes && <p className="mt-3">{colour.notes}</p>}
          <div className="mt-6 max-w-2xl">
            <Caution about={['hot']} />
          </div>
        </section>
      </div>
      <div className="grid grid-cols-1 md:grid-cols-2 gap-12">
        <section>
          <h2 className="mb-2">Pours of it</h2>
          {colour.pourList.length === 0 && <p className="soft">None yet.</p>}
          {colour.pourList.map((pour) => (
            <Link key={pour.id} to={`/pours/${pour.id}`} className="flex gap-4 py-1.5 row-hover">
              <span className="figure">{pour.code}</span>
              <span className="flex-1">{dateText(pour.at)}</span>
              <span className="figure">{pour.sell} to sell</span>
            </Link>
          ))}
        </section>
        {older.length > 0 && (
          <section>
            <h2 className="mb-2">Before</h2>
            {older.map((one) => (
              <p key={one.id} className="py-1">
                <b>v{one.number}</b> “{one.reason}”, {dateText(one.createdAt)}:{' '}
                {one.layers.map((layer) => `${PLACES[layer.place]} ${layer.recipeName}, ${amount(layer)}`).join('; ')}
              </p>
            ))}
          </section>
        )}
      </div>
      <div className="grid grid-cols-1 md:grid-cols-2 gap-12">
        <Marks id={colour.id} />
        <WhereUsed id={colour.id} />
      </div>
      <ComplaintsAbout of="colourwayId" id={colour.id} />
      <PutAway kind="colourways" row={colour} />
      <Photos aboutType="colourway" aboutId={colour.id} />
    </Page>
  );
}

/** What a level comes to in the molds that could pour it: how high, and how much. */
function InEachMold({ colour }: { colour: Colourway }) {
  const { text, say } = useTaste();
  const molds = useQuery(queries.molds).data?.items.filter((mold) => !mold.retiredAt);
  const levels = useQuery({ ...queries.levels(colour.id), enabled: levelsIn(colour.layers).length > 0 }).data?.items;
  if (!molds || !levels) return null;
  const stood = molds.flatMap((mold) => {
    const mine = levels.find((one) => one.moldId === mold.id);
    return mine ? [{ mold, ...mine, ...tried(() => layersOfShot({ ...mold, ...mine }, colour.layers)) }] : [];
  });
  return (
    <div className="mt-6">
      <h2 className="mb-2">Up to its levels</h2>
      {stood.length === 0 && (
        <p className="soft">
          How much a level holds is not known yet: no mold here is of a master with a mesh. Such a colour is poured only
          into molds whose shape is known.
        </p>
      )}
      {stood.map(({ mold, stands, value, refused }) => (
        <p key={mold.id} className="py-1">
          <Link to={`/molds/${mold.id}`} className="link font-bold">
            {mold.name}
          </Link>{' '}
          <span className="soft">
            <Stood of={stands} />:
          </span>{' '}
          {refused
            ? say(refused)
            : value?.layersMm
                .flatMap((mm, i) =>
                  mm === null
                    ? []
                    : [
                        `${PLACES[(colour.layers[i] as Layer).place]} to ${text(mm, 'length')}, ${text(value.cavityLayersMl[i] as number, 'volume')} a cavity`,
                      ],
                )
                .join('; ')}
        </p>
      ))}
    </div>
  );
}
