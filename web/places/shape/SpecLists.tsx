import { FIN_PLACES, INSERTS, LIMBS } from '../../../core/shape/spec.ts';
import { insertRoomMl, USUAL_BEND, USUAL_FIN, USUAL_LIMB, usualInsert } from '../../../core/shape/starts.ts';
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

const LIMB_WORDS = { claw: 'claws', pincer: 'open pincers', leg: 'legs' } as const;
const FIN_WORDS = { back: 'back', belly: 'belly', sides: 'sides' } as const;

const ROW = 'border-b border-[var(--rule)] pb-2 mb-1 flex flex-col gap-1';

export function Limbs() {
  const { spec, set } = useSpec();
  return (
    <Section title={titled('Claws and legs', spec.limbs.length)}>
      {spec.limbs.map((limb, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: limbs have no name but their place in the list
        <div key={i} className={ROW}>
          <RowHead
            title={LIMB_WORDS[limb.kind]}
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
        {LIMBS.map((kind) => (
          <button
            key={kind}
            type="button"
            className={SMALL}
            disabled={spec.limbs.length >= 6}
            onClick={() => set({ ...spec, limbs: [...spec.limbs, USUAL_LIMB[kind]] }, null)}
          >
            + {LIMB_WORDS[kind]}
          </button>
        ))}
      </div>
    </Section>
  );
}

/** Fins besides the one on the back: swept, under the belly, at the sides. */
export function Fins() {
  const { spec, set } = useSpec();
  return (
    <Section title={titled('Fins', spec.fins.length)}>
      {spec.fins.map((fin, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: fins have no name but their place in the list
        <div key={i} className={ROW}>
          <RowHead
            title={fin.place === 'sides' ? 'fins at the sides' : `fin, ${FIN_WORDS[fin.place]}`}
            onOut={() => set({ ...spec, fins: spec.fins.filter((_, n) => n !== i) }, null)}
          />
          <SpecPlace at={`fins.${i}.fromAt`} label="From" />
          <SpecPlace at={`fins.${i}.toAt`} label="To" />
          <SpecField at={`fins.${i}.heightMm`} label={fin.place === 'sides' ? 'Stands out' : 'High'} />
          <SpecField at={`fins.${i}.thicknessMm`} label="Thick" />
          <SpecField at={`fins.${i}.sweepMm`} label="Tip swept back" />
          {fin.place === 'sides' && <SpecField at={`fins.${i}.upMm`} label="Over the axis" />}
        </div>
      ))}
      <div className="flex gap-1">
        {FIN_PLACES.map((place) => (
          <button
            key={place}
            type="button"
            className={SMALL}
            disabled={spec.fins.length >= 8}
            onClick={() => set({ ...spec, fins: [...spec.fins, USUAL_FIN[place]] }, null)}
          >
            + {FIN_WORDS[place]}
          </button>
        ))}
      </div>
    </Section>
  );
}

/** Bends of the axis, seen from the side. */
export function Bends() {
  const { spec, set } = useSpec();
  return (
    <Section title={titled('Bent, seen from the side', spec.bends.length)}>
      {spec.bends.map((bend, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: bends have no name but their place in the list
        <div key={i} className={ROW}>
          <RowHead
            title={bend.turnDeg >= 0 ? 'tail down' : 'tail up'}
            onOut={() => set({ ...spec, bends: spec.bends.filter((_, n) => n !== i) }, null)}
          />
          <SpecPlace at={`bends.${i}.fromAt`} label="From" />
          <SpecPlace at={`bends.${i}.toAt`} label="To" />
          <SpecField at={`bends.${i}.turnDeg`} label="Turns down, °" plain step={1} />
        </div>
      ))}
      <button
        type="button"
        className={`${SMALL} self-start`}
        disabled={spec.bends.length >= 4}
        onClick={() => set({ ...spec, bends: [...spec.bends, USUAL_BEND] }, null)}
      >
        + a bend
      </button>
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
