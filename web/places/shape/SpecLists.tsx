import { usual } from '../../../core/defaults.ts';
import { INSERTS, type ShapeSpec } from '../../../core/shape/spec.ts';
import { Section, SMALL, SpecField, SpecPlace, useSpec } from './SpecField.tsx';

const DENSITY: Record<(typeof INSERTS)[number], number> = {
  wire: usual('stainlessGPerMl'),
  tube: usual('tubeGPerMl'),
  weight: usual('leadGPerMl'),
};
const roomOf = (kind: keyof typeof DENSITY, massG: number) => Math.round((massG / DENSITY[kind]) * 1000) / 1000;

const titled = (title: string, count: number) => `${title}${count ? `, ${count}` : ''}`;

/** A row of a list: what it is, and the way out. */
function RowHead({ title, onOut }: { title: string; onOut(): void }) {
  return (
    <div className="flex items-center">
      <span className="font-bold text-sm flex-1 capitalize">{title}</span>
      <button type="button" className="link text-sm" onClick={onOut}>
        Take out
      </button>
    </div>
  );
}

const ROW = 'border-b border-[var(--rule)] pb-2 mb-1 flex flex-col gap-1';

const NEW_LIMB: Record<'claw' | 'leg', ShapeSpec['limbs'][number]> = {
  claw: { kind: 'claw', pairs: 1, at: 0.85, stepMm: 0, lengthMm: 24, thicknessMm: 4, angleDeg: 24, dropDeg: 0 },
  leg: { kind: 'leg', pairs: 3, at: 0.4, stepMm: 6, lengthMm: 9, thicknessMm: 2, angleDeg: 60, dropDeg: 20 },
};

export function Limbs() {
  const { spec, set } = useSpec();
  return (
    <Section title={titled('Claws and legs', spec.limbs.length)}>
      {spec.limbs.map((limb, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: limbs have no name but their place in the list
        <div key={i} className={ROW}>
          <RowHead
            title={`${limb.kind}s`}
            onOut={() => set({ ...spec, limbs: spec.limbs.filter((_, n) => n !== i) }, null)}
          />
          <SpecField at={`limbs.${i}.pairs`} label="Pairs" />
          <SpecPlace at={`limbs.${i}.at`} label="From the nose" />
          {limb.pairs > 1 && <SpecField at={`limbs.${i}.stepMm`} label="Between pairs" />}
          <SpecField at={`limbs.${i}.lengthMm`} label="Long" />
          <SpecField at={`limbs.${i}.thicknessMm`} label="Thick" />
          <SpecField at={`limbs.${i}.angleDeg`} label="Outward, °" plain step={1} />
          <SpecField at={`limbs.${i}.dropDeg`} label="Hang down, °" plain step={1} />
        </div>
      ))}
      <div className="flex gap-1">
        {(['claw', 'leg'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className={SMALL}
            disabled={spec.limbs.length >= 6}
            onClick={() => set({ ...spec, limbs: [...spec.limbs, NEW_LIMB[kind]] }, null)}
          >
            + {kind}s
          </button>
        ))}
      </div>
    </Section>
  );
}

export function Inserts() {
  const { spec, set } = useSpec();
  return (
    <Section title={titled('Inserts', spec.inserts.length)}>
      {spec.inserts.map((insert, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: inserts have no name but their place in the list
        <div key={i} className={ROW}>
          <RowHead
            title={insert.kind}
            onOut={() => set({ ...spec, inserts: spec.inserts.filter((_, n) => n !== i) }, null)}
          />
          <SpecField
            at={`inserts.${i}.massG`}
            label="Mass, g"
            plain
            follow={(next, massG) => ({
              ...next,
              inserts: next.inserts.map((row, n) => (n === i ? { ...row, volumeMl: roomOf(row.kind, massG) } : row)),
            })}
          />
          <SpecPlace at={`inserts.${i}.at`} label="From the nose" />
          <SpecField at={`inserts.${i}.upMm`} label="Over the axis" />
        </div>
      ))}
      <div className="flex gap-1">
        {INSERTS.map((kind) => (
          <button
            key={kind}
            type="button"
            className={`${SMALL} capitalize`}
            disabled={spec.inserts.length >= 12}
            onClick={() => {
              const massG = kind === 'weight' ? 5 : 0.6;
              const insert = { kind, massG, volumeMl: roomOf(kind, massG), at: 0.35, upMm: -3 };
              set({ ...spec, inserts: [...spec.inserts, insert] }, null);
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
  );
}
