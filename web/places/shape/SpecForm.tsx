import { memo, type ReactNode, useState } from 'react';
import { usual } from '../../../core/defaults.ts';
import { INSERTS, type ShapeSpec, TAILS } from '../../../core/shape/spec.ts';
import { MmField } from '../../parts/MmField.tsx';
import { TAIL_FIELDS, TAIL_USUAL, TAIL_WORDS } from './words.ts';

/** A shape that was kept before, whose tail can be taken over. */
export interface Donor {
  id: string;
  label: string;
  spec: ShapeSpec;
}

interface Props {
  spec: ShapeSpec;
  donors: Donor[];
  onTail(donor: Donor): void;
  onChange(spec: ShapeSpec, about: string | null): void;
  onSettle(): void;
  station: number;
  onStation(index: number): void;
}

const DENSITY: Record<(typeof INSERTS)[number], number> = {
  wire: usual('stainlessGPerMl'),
  tube: usual('tubeGPerMl'),
  weight: usual('leadGPerMl'),
};

/** The figures of a bait, in the order in which a maker shapes it. */
export const SpecForm = memo(function SpecForm({
  spec,
  donors,
  onTail,
  onChange,
  onSettle,
  station,
  onStation,
}: Props) {
  const set = (part: Partial<ShapeSpec>, about: string | null) => onChange({ ...spec, ...part }, about);
  const mm = (
    label: string,
    value: number,
    least: number,
    most: number,
    take: (value: number) => Partial<ShapeSpec>,
    more: { step?: number; plain?: boolean } = {},
  ) => (
    <MmField
      key={label}
      label={label}
      value={value}
      least={least}
      most={most}
      {...more}
      onSettle={onSettle}
      onChange={(next) => set(take(next), label)}
    />
  );
  /** A place along the body, typed as a distance from the nose. */
  const place = (label: string, at: number, take: (at: number) => Partial<ShapeSpec>, most = 1) =>
    mm(label, at * spec.bodyMm, 0, most * spec.bodyMm, (value) => take(value / spec.bodyMm), { step: 0.5 });
  const { wrist, tail, ribs, fin, eyes, bore, carved } = spec;
  const one = spec.stations[station] ?? spec.stations[0];
  const setStation = (part: Partial<ShapeSpec['stations'][number]>) => ({
    stations: spec.stations.map((row, i) => (row === one || i === station ? { ...row, ...part } : row)),
  });
  return (
    <div className="flex flex-col">
      <Section title="Body" open>
        {mm('Nose to wrist', spec.bodyMm, 8, 500, (bodyMm) => ({ bodyMm }), { step: 0.5 })}
        {mm('Nose rounded over', spec.noseMm, 0, 100, (noseMm) => ({ noseMm }), { step: 0.5 })}
        {mm('Flat belly, 0 to 1', spec.flatBelly, 0, 1, (flatBelly) => ({ flatBelly }), { plain: true, step: 0.05 })}
        <div className="flex items-center gap-1 mt-1">
          <span className="text-sm flex-1">Station</span>
          {[...spec.stations.keys()].map((i) => (
            <button
              key={i}
              type="button"
              className={`btn btn-xs ${i === station ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
              aria-pressed={i === station}
              onClick={() => onStation(i)}
            >
              {i + 1}
            </button>
          ))}
          <button
            type="button"
            className="btn btn-xs bg-transparent border-[var(--edge)]"
            aria-label="Another station after this one"
            disabled={spec.stations.length >= 12}
            onClick={() => {
              const next = spec.stations[station + 1];
              if (!one) return;
              const at = ((one.at + (next?.at ?? 1)) / 2) as number;
              const stations = [...spec.stations];
              stations.splice(station + 1, 0, {
                at,
                topMm: (one.topMm + (next?.topMm ?? one.topMm)) / 2,
                bottomMm: (one.bottomMm + (next?.bottomMm ?? one.bottomMm)) / 2,
                widthMm: (one.widthMm + (next?.widthMm ?? one.widthMm)) / 2,
              });
              set({ stations }, null);
              onStation(station + 1);
            }}
          >
            +
          </button>
          <button
            type="button"
            className="btn btn-xs bg-transparent border-[var(--edge)]"
            aria-label="Take this station out"
            disabled={spec.stations.length <= 2}
            onClick={() => {
              set({ stations: spec.stations.filter((_, i) => i !== station) }, null);
              onStation(Math.max(0, station - 1));
            }}
          >
            −
          </button>
        </div>
        {one && (
          <>
            {place('From the nose', one.at, (at) => setStation({ at }))}
            {mm('Back over the axis', one.topMm, 0.3, 100, (topMm) => setStation({ topMm }))}
            {mm('Belly under it', one.bottomMm, 0.3, 100, (bottomMm) => setStation({ bottomMm }))}
            {mm('Wide', one.widthMm, 0.6, 200, (widthMm) => setStation({ widthMm }))}
          </>
        )}
      </Section>
      <Section title="Wrist and tail" open>
        {mm('Wrist thick, side to side', wrist.thicknessMm, 0.6, 60, (value) => ({
          wrist: { ...wrist, thicknessMm: value },
        }))}
        {mm('Wrist high', wrist.heightMm, 0.6, 100, (value) => ({ wrist: { ...wrist, heightMm: value } }))}
        {mm('Wrist long', wrist.lengthMm, 0.5, 150, (value) => ({ wrist: { ...wrist, lengthMm: value } }))}
        <select
          className="select select-sm w-full my-1"
          aria-label="Kind of tail"
          value={tail.kind}
          onChange={(event) => {
            const kind = event.target.value as (typeof TAILS)[number];
            set({ tail: { kind, ...TAIL_USUAL[kind] } }, null);
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
        {TAIL_FIELDS[tail.kind].map(([field, label]) =>
          mm(
            label,
            tail[field],
            field === 'angleDeg' ? 0 : 0.6,
            field === 'angleDeg' ? 300 : 150,
            (value) => ({ tail: { ...tail, [field]: value } }),
            {
              plain: field === 'angleDeg',
              step: field === 'angleDeg' ? 1 : 0.1,
            },
          ),
        )}
      </Section>
      <Switch
        title="Ribs"
        on={ribs !== null}
        onSwitch={(on) =>
          set({ ribs: on ? { count: 8, depthMm: 0.8, widthMm: 3, fromAt: 0.2, toAt: 0.85 } : null }, null)
        }
      >
        {ribs && (
          <>
            {mm('How many', ribs.count, 1, 60, (count) => ({ ribs: { ...ribs, count: Math.round(count) } }), {
              plain: true,
              step: 1,
            })}
            {mm('Deep', ribs.depthMm, 0.1, 10, (depthMm) => ({ ribs: { ...ribs, depthMm } }))}
            {mm('Wide', ribs.widthMm, 0.3, 20, (widthMm) => ({ ribs: { ...ribs, widthMm } }))}
            {place('From', ribs.fromAt, (fromAt) => ({ ribs: { ...ribs, fromAt } }))}
            {place('To', ribs.toAt, (toAt) => ({ ribs: { ...ribs, toAt } }))}
          </>
        )}
      </Switch>
      <Limbs spec={spec} onChange={onChange} onSettle={onSettle} />
      <Switch
        title="Fin on the back"
        on={fin !== null}
        onSwitch={(on) => set({ fin: on ? { fromAt: 0.35, toAt: 0.7, heightMm: 6, thicknessMm: 2.4 } : null }, null)}
      >
        {fin && (
          <>
            {mm('High', fin.heightMm, 0.5, 60, (heightMm) => ({ fin: { ...fin, heightMm } }))}
            {mm('Thick', fin.thicknessMm, 0.5, 20, (thicknessMm) => ({ fin: { ...fin, thicknessMm } }))}
            {place('From', fin.fromAt, (fromAt) => ({ fin: { ...fin, fromAt } }))}
            {place('To', fin.toAt, (toAt) => ({ fin: { ...fin, toAt } }))}
          </>
        )}
      </Switch>
      <Switch
        title="Eye sockets"
        on={eyes !== null}
        onSwitch={(on) => set({ eyes: on ? { diameterMm: 4, at: 0.12, upMm: 1.5 } : null }, null)}
      >
        {eyes && (
          <>
            {mm('Eye across', eyes.diameterMm, 0.5, 30, (diameterMm) => ({ eyes: { ...eyes, diameterMm } }))}
            {place('From the nose', eyes.at, (at) => ({ eyes: { ...eyes, at } }))}
            {mm('Over the axis', eyes.upMm, -50, 50, (upMm) => ({ eyes: { ...eyes, upMm } }))}
          </>
        )}
      </Switch>
      {(['bellySlot', 'topSlot'] as const).map((key) => {
        const slot = spec[key];
        return (
          <Switch
            key={key}
            title={key === 'bellySlot' ? 'Hook slot in the belly' : 'Slot in the back'}
            on={slot !== null}
            onSwitch={(on) => set({ [key]: on ? { fromAt: 0.35, toAt: 0.7, widthMm: 2.4, depthMm: 6 } : null }, null)}
          >
            {slot && (
              <>
                {place('From', slot.fromAt, (fromAt) => ({ [key]: { ...slot, fromAt } }))}
                {place('To', slot.toAt, (toAt) => ({ [key]: { ...slot, toAt } }))}
                {mm('Wide', slot.widthMm, 0.2, 40, (widthMm) => ({ [key]: { ...slot, widthMm } }))}
                {mm('Deep', slot.depthMm, 0.2, 80, (depthMm) => ({ [key]: { ...slot, depthMm } }))}
              </>
            )}
          </Switch>
        );
      })}
      <Switch
        title="Bore"
        on={bore !== null}
        onSwitch={(on) => set({ bore: on ? { diameterMm: 3, fromAt: 0, toAt: 1.5, upMm: 0 } : null }, null)}
      >
        {bore && (
          <>
            {mm('Bore across', bore.diameterMm, 0.3, 60, (diameterMm) => ({ bore: { ...bore, diameterMm } }))}
            {place('From', bore.fromAt, (fromAt) => ({ bore: { ...bore, fromAt } }), 1.5)}
            {place('To', bore.toAt, (toAt) => ({ bore: { ...bore, toAt } }), 1.5)}
            {mm('Over the axis', bore.upMm, -50, 50, (upMm) => ({ bore: { ...bore, upMm } }))}
          </>
        )}
      </Switch>
      <Section title={`Inserts${spec.inserts.length ? `, ${spec.inserts.length}` : ''}`}>
        {spec.inserts.map((insert, i) => {
          const put = (part: Partial<typeof insert>) => ({
            inserts: spec.inserts.map((row, n) => (n === i ? { ...row, ...part } : row)),
          });
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: inserts have no name but their place in the list
            <div key={i} className="border-b border-[var(--rule)] pb-2 mb-1 flex flex-col gap-1">
              <div className="flex items-center">
                <span className="font-bold text-sm flex-1 capitalize">{insert.kind}</span>
                <button
                  type="button"
                  className="link text-sm"
                  onClick={() => set({ inserts: spec.inserts.filter((_, n) => n !== i) }, null)}
                >
                  Take out
                </button>
              </div>
              {mm(
                'Mass, g',
                insert.massG,
                0.001,
                500,
                (massG) => put({ massG, volumeMl: Math.round((massG / DENSITY[insert.kind]) * 1000) / 1000 }),
                { plain: true },
              )}
              {place('From the nose', insert.at, (at) => put({ at }))}
              {mm('Over the axis', insert.upMm, -80, 80, (upMm) => put({ upMm }))}
            </div>
          );
        })}
        <div className="flex gap-1">
          {INSERTS.map((kind) => (
            <button
              key={kind}
              type="button"
              className="btn btn-xs bg-transparent border-[var(--edge)] capitalize"
              disabled={spec.inserts.length >= 12}
              onClick={() => {
                const massG = kind === 'weight' ? 5 : 0.6;
                const volumeMl = Math.round((massG / DENSITY[kind]) * 1000) / 1000;
                set({ inserts: [...spec.inserts, { kind, massG, volumeMl, at: 0.35, upMm: -3 }] }, null);
              }}
            >
              + {kind}
            </button>
          ))}
        </div>
        {spec.inserts.some((row) => row.kind === 'weight') && (
          <p className="text-xs warn font-bold">
            Lead: gloves, wash hands, no lead in the melt; many places restrict it. The sheet and local rules win.
          </p>
        )}
      </Section>
      <Switch
        title="Cut flat to lie on a board"
        on={spec.cutFlatMm !== null}
        onSwitch={(on) => set({ cutFlatMm: on ? 1 : null }, null)}
      >
        {spec.cutFlatMm !== null && mm('Off the belly', spec.cutFlatMm, 0, 60, (cutFlatMm) => ({ cutFlatMm }))}
      </Switch>
      <Section title="As a hand carves it">
        <div className="flex gap-1 flex-wrap">
          {(
            [
              ['As drawn', 0, 0],
              ['Slight taper', 0.06, 0],
              ['Slight bend', 0, 2],
              ['Both', 0.08, 3],
            ] as const
          ).map(([label, taper, bendMm]) => (
            <button
              key={label}
              type="button"
              className="btn btn-xs bg-transparent border-[var(--edge)]"
              aria-pressed={carved.taper === taper && carved.bendMm === bendMm}
              onClick={() => set({ carved: { taper, bendMm } }, null)}
            >
              {label}
            </button>
          ))}
        </div>
        {mm('Thinner to the tail, share', carved.taper, -0.5, 0.5, (taper) => ({ carved: { ...carved, taper } }), {
          plain: true,
          step: 0.01,
        })}
        {mm('Bent to the right by', carved.bendMm, -60, 60, (bendMm) => ({ carved: { ...carved, bendMm } }), {
          step: 0.5,
        })}
      </Section>
    </div>
  );
});

function Limbs({ spec, onChange, onSettle }: Pick<Props, 'spec' | 'onChange' | 'onSettle'>) {
  const set = (limbs: ShapeSpec['limbs'], about: string | null) => onChange({ ...spec, limbs }, about);
  const field = (
    i: number,
    label: string,
    key: 'pairs' | 'stepMm' | 'lengthMm' | 'thicknessMm' | 'angleDeg' | 'dropDeg',
    least: number,
    most: number,
    more: { step?: number; plain?: boolean } = {},
  ) => (
    <MmField
      label={label}
      value={spec.limbs[i]?.[key] ?? 0}
      least={least}
      most={most}
      {...more}
      onSettle={onSettle}
      onChange={(value) =>
        set(
          spec.limbs.map((row, n) => (n === i ? { ...row, [key]: key === 'pairs' ? Math.round(value) : value } : row)),
          `${label} ${i}`,
        )
      }
    />
  );
  return (
    <Section title={`Claws and legs${spec.limbs.length ? `, ${spec.limbs.length}` : ''}`}>
      {spec.limbs.map((limb, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: limbs have no name but their place in the list
        <div key={i} className="border-b border-[var(--rule)] pb-2 mb-1 flex flex-col gap-1">
          <div className="flex items-center">
            <span className="font-bold text-sm flex-1 capitalize">{limb.kind}s</span>
            <button
              type="button"
              className="link text-sm"
              onClick={() =>
                set(
                  spec.limbs.filter((_, n) => n !== i),
                  null,
                )
              }
            >
              Take out
            </button>
          </div>
          {field(i, 'Pairs', 'pairs', 1, 8, { plain: true, step: 1 })}
          <MmField
            label="From the nose"
            value={limb.at * spec.bodyMm}
            least={0}
            most={spec.bodyMm}
            step={0.5}
            onSettle={onSettle}
            onChange={(value) =>
              set(
                spec.limbs.map((row, n) => (n === i ? { ...row, at: value / spec.bodyMm } : row)),
                `limb at ${i}`,
              )
            }
          />
          {limb.pairs > 1 && field(i, 'Between pairs', 'stepMm', 0, 60)}
          {field(i, 'Long', 'lengthMm', 2, 150)}
          {field(i, 'Thick', 'thicknessMm', 0.6, 30)}
          {field(i, 'Outward, °', 'angleDeg', 0, 180, { plain: true, step: 1 })}
          {field(i, 'Hang down, °', 'dropDeg', -80, 80, { plain: true, step: 1 })}
        </div>
      ))}
      <div className="flex gap-1">
        {(['claw', 'leg'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="btn btn-xs bg-transparent border-[var(--edge)]"
            disabled={spec.limbs.length >= 6}
            onClick={() =>
              set(
                [
                  ...spec.limbs,
                  kind === 'claw'
                    ? { kind, pairs: 1, at: 0.85, stepMm: 0, lengthMm: 24, thicknessMm: 4, angleDeg: 24, dropDeg: 0 }
                    : { kind, pairs: 3, at: 0.4, stepMm: 6, lengthMm: 9, thicknessMm: 2, angleDeg: 60, dropDeg: 20 },
                ],
                null,
              )
            }
          >
            + {kind}s
          </button>
        ))}
      </div>
    </Section>
  );
}

function Section({ title, open = false, children }: { title: string; open?: boolean; children: ReactNode }) {
  return (
    <details open={open} className="border-b border-[var(--rule)] py-1.5">
      <summary className="cursor-pointer font-display font-bold text-[0.9375rem] py-0.5">{title}</summary>
      <div className="flex flex-col gap-1 pt-1 pb-2">{children}</div>
    </details>
  );
}

function Switch({
  title,
  on,
  onSwitch,
  children,
}: {
  title: string;
  on: boolean;
  onSwitch(on: boolean): void;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <div className="border-b border-[var(--rule)] py-1.5">
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-2 cursor-pointer font-display font-bold text-[0.9375rem] flex-1 py-0.5">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={on}
            onChange={(event) => {
              onSwitch(event.target.checked);
              setOpen(event.target.checked);
            }}
          />
          {title}
        </label>
        {on && (
          <button type="button" className="link text-sm soft" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'less' : 'figures'}
          </button>
        )}
      </div>
      {on && open && <div className="flex flex-col gap-1 pt-1 pb-2">{children}</div>}
    </div>
  );
}
