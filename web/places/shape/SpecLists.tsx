import { INSERTS } from '../../../core/shape/spec.ts';
import { insertRoomMl, USUAL_LIMB, usualInsert } from '../../../core/shape/starts.ts';
import { Section, SMALL, SpecField, SpecPlace, useSpec } from './SpecField.tsx';

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
            onClick={() => set({ ...spec, limbs: [...spec.limbs, USUAL_LIMB[kind]] }, null)}
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
              inserts: next.inserts.map((row, n) =>
                n === i ? { ...row, volumeMl: insertRoomMl(row.kind, massG) } : row,
              ),
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
            onClick={() => set({ ...spec, inserts: [...spec.inserts, usualInsert(kind)] }, null)}
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
