import { memo, useMemo } from 'react';
import { type ShapeSpec, TAILS } from '../../../core/shape/spec.ts';
import { USUAL_TAIL } from '../../../core/shape/starts.ts';
import { type BroughtMesh, Joined } from './Joined.tsx';
import { ChoiceField, Section, SMALL, SpecContext, SpecField, SpecPlace, Switch, useSpec } from './SpecField.tsx';
import { Bends, Fins, Inserts, Limbs } from './SpecLists.tsx';
import { TAIL_FIELDS, TAIL_WORDS } from './words.ts';

/** A shape that was kept before, whose tail can be taken over. */
export interface Donor {
  id: string;
  label: string;
  spec: ShapeSpec;
}

interface Props {
  spec: ShapeSpec;
  donors: Donor[];
  /** Closed meshes that were brought, to be joined with. */
  meshes: BroughtMesh[];
  onTail(donor: Donor): void;
  onChange(spec: ShapeSpec, about: string | null): void;
  onSettle(): void;
  station: number;
  onStation(index: number): void;
}

/** The figures of a bait, in the order in which a maker shapes it. */
export const SpecForm = memo(function SpecForm({
  spec,
  donors,
  meshes,
  onTail,
  onChange,
  onSettle,
  station,
  onStation,
}: Props) {
  const within = useMemo(() => ({ spec, set: onChange, onSettle }), [spec, onChange, onSettle]);
  return (
    <SpecContext value={within}>
      <div className="flex flex-col">
        <Body station={station} onStation={onStation} />
        <Tail donors={donors} onTail={onTail} />
        <Switch title="Ribs" of="ribs">
          <SpecField at="ribs.count" label="How many" />
          <SpecField at="ribs.depthMm" label="Deep" />
          <SpecField at="ribs.widthMm" label="Wide" />
          <FromTo of="ribs" />
        </Switch>
        <Limbs />
        <Bends />
        <Switch title="Scales or rings in the skin" of="texture">
          <ChoiceField
            at="texture.kind"
            label="Texture"
            options={[
              ['scales', 'scales'],
              ['ridges', 'fine rings'],
            ]}
          />
          <SpecField at="texture.sizeMm" label="Each across" step={0.1} />
          <SpecField at="texture.depthMm" label="Deep" step={0.05} />
          <FromTo of="texture" />
        </Switch>
        <Fins />
        <Switch title="Fin on the back" of="fin">
          <SpecField at="fin.heightMm" label="High" />
          <SpecField at="fin.thicknessMm" label="Thick" />
          <FromTo of="fin" />
        </Switch>
        <Switch title="Eye sockets" of="eyes">
          <SpecField at="eyes.diameterMm" label="Eye across" />
          <SpecPlace at="eyes.at" label="From the nose" />
          <SpecField at="eyes.upMm" label="Over the axis" />
        </Switch>
        {(['bellySlot', 'topSlot'] as const).map((key) => (
          <Switch key={key} title={key === 'bellySlot' ? 'Hook slot in the belly' : 'Slot in the back'} of={key}>
            <FromTo of={key} />
            <SpecField at={`${key}.widthMm`} label="Wide" />
            <SpecField at={`${key}.depthMm`} label="Deep" />
          </Switch>
        ))}
        <Switch title="Mouth" of="mouth">
          <SpecField at="mouth.depthMm" label="From the nose back" />
          <SpecField at="mouth.gapMm" label="Gape at the lips" />
          <SpecField at="mouth.upMm" label="Over the axis" />
        </Switch>
        <Switch title="Gill plates" of="gills">
          <SpecPlace at="gills.at" label="Middle, from the nose" />
          <SpecField at="gills.acrossMm" label="Across" />
          <SpecField at="gills.raiseMm" label="Proud by" step={0.05} />
        </Switch>
        <Switch title="Hollow inside" of="hollow">
          <SpecField at="hollow.skinMm" label="Wall all round" />
          <FromTo of="hollow" />
        </Switch>
        <Switch title="Bore" of="bore">
          <SpecField at="bore.diameterMm" label="Bore across" />
          <FromTo of="bore" />
          <SpecField at="bore.upMm" label="Over the axis" />
        </Switch>
        <Inserts />
        <Switch title="Cut flat to lie on a board" of="cutFlatMm">
          <SpecField at="cutFlatMm" label="Off the belly" />
        </Switch>
        <Carved />
        <Joined meshes={meshes} />
      </div>
    </SpecContext>
  );
});

function FromTo({ of }: { of: 'ribs' | 'fin' | 'texture' | 'hollow' | 'bellySlot' | 'topSlot' | 'bore' }) {
  return (
    <>
      <SpecPlace at={`${of}.fromAt`} label="From" />
      <SpecPlace at={`${of}.toAt`} label="To" />
    </>
  );
}

type StationProps = Pick<Props, 'station' | 'onStation'>;

/** A station halfway to the next one. */
function between(spec: ShapeSpec, index: number): ShapeSpec['stations'] {
  const [one, next] = [spec.stations[index], spec.stations[index + 1]];
  if (!one) return spec.stations;
  const half = (key: 'topMm' | 'bottomMm' | 'widthMm') => (one[key] + (next?.[key] ?? one[key])) / 2;
  const added = {
    at: (one.at + (next?.at ?? 1)) / 2,
    topMm: half('topMm'),
    bottomMm: half('bottomMm'),
    widthMm: half('widthMm'),
  };
  return [...spec.stations.slice(0, index + 1), added, ...spec.stations.slice(index + 1)];
}

function Body({ station, onStation }: StationProps) {
  const { spec, set } = useSpec();
  const shown = spec.stations[station] ? station : 0;
  return (
    <Section title="Body" open>
      <SpecField at="bodyMm" label="Nose to wrist" step={0.5} />
      <SpecField at="noseMm" label="Nose rounded over" step={0.5} />
      <SpecField at="flatBelly" label="Flat belly, 0 to 1" plain step={0.05} />
      <div className="flex items-center gap-1 mt-1">
        <span className="text-sm flex-1">Station</span>
        {[...spec.stations.keys()].map((i) => (
          <button
            key={i}
            type="button"
            className={i === station ? 'btn btn-xs btn-primary' : SMALL}
            aria-pressed={i === station}
            onClick={() => onStation(i)}
          >
            {i + 1}
          </button>
        ))}
        <button
          type="button"
          className={SMALL}
          aria-label="Another station after this one"
          disabled={spec.stations.length >= 12}
          onClick={() => {
            set({ ...spec, stations: between(spec, shown) }, null);
            onStation(shown + 1);
          }}
        >
          +
        </button>
        <button
          type="button"
          className={SMALL}
          aria-label="Take this station out"
          disabled={spec.stations.length <= 2}
          onClick={() => {
            set({ ...spec, stations: spec.stations.filter((_, i) => i !== shown) }, null);
            onStation(Math.max(0, shown - 1));
          }}
        >
          −
        </button>
      </div>
      <SpecPlace at={`stations.${shown}.at`} label="From the nose" />
      <SpecField at={`stations.${shown}.topMm`} label="Back over the axis" />
      <SpecField at={`stations.${shown}.bottomMm`} label="Belly under it" />
      <SpecField at={`stations.${shown}.widthMm`} label="Wide" />
    </Section>
  );
}

function Tail({ donors, onTail }: Pick<Props, 'donors' | 'onTail'>) {
  const { spec, set } = useSpec();
  return (
    <Section title="Wrist and tail" open>
      <SpecField at="wrist.thicknessMm" label="Wrist thick, side to side" />
      <SpecField at="wrist.heightMm" label="Wrist high" />
      <SpecField at="wrist.lengthMm" label="Wrist long" />
      <select
        className="select select-sm w-full my-1"
        aria-label="Kind of tail"
        value={spec.tail.kind}
        onChange={(event) => {
          const kind = event.target.value as (typeof TAILS)[number];
          set({ ...spec, tail: { kind, ...USUAL_TAIL[kind] } }, null);
        }}
      >
        {TAILS.map((kind) => (
          <option key={kind} value={kind}>
            {TAIL_WORDS[kind]}
          </option>
        ))}
      </select>
      {donors.length > 0 && (
        <select
          className="select select-sm w-full mb-1"
          aria-label="Take over a tail"
          value=""
          onChange={(event) => {
            const donor = donors.find((row) => row.id === event.target.value);
            if (donor) onTail(donor);
          }}
        >
          <option value="">Take over the tail of …</option>
          {donors.map((row) => (
            <option key={row.id} value={row.id}>
              {row.label}
            </option>
          ))}
        </select>
      )}
      {TAIL_FIELDS[spec.tail.kind].map(([field, label]) => (
        <SpecField
          key={field}
          at={`tail.${field}`}
          label={label}
          {...(field === 'angleDeg' || field === 'strands' ? { plain: true, step: 1 } : {})}
        />
      ))}
    </Section>
  );
}

const BY_HAND = [
  ['As drawn', 0, 0],
  ['Slight taper', 0.06, 0],
  ['Slight bend', 0, 2],
  ['Both', 0.08, 3],
] as const;

function Carved() {
  const { spec, set } = useSpec();
  const { carved } = spec;
  return (
    <Section title="As a hand carves it">
      <div className="flex gap-1 flex-wrap">
        {BY_HAND.map(([label, taper, bendMm]) => (
          <button
            key={label}
            type="button"
            className={SMALL}
            aria-pressed={carved.taper === taper && carved.bendMm === bendMm}
            onClick={() => set({ ...spec, carved: { taper, bendMm } }, null)}
          >
            {label}
          </button>
        ))}
      </div>
      <SpecField at="carved.taper" label="Thinner to the tail, share" plain step={0.01} />
      <SpecField at="carved.bendMm" label="Bent to the right by" step={0.5} />
    </Section>
  );
}
