import { Section, SpecField, useSpec } from './SpecField.tsx';

export interface BroughtMesh {
  meshId: string;
  label: string;
  sizeMm: [number, number, number];
}

/** A mesh that was brought, joined with what is sculpted or cut out of it: a head of one's own on a carved body. */
export function Joined({ meshes }: { meshes: BroughtMesh[] }) {
  const { spec, set } = useSpec();
  const { brought } = spec;
  const take = (meshId: string) => {
    if (meshId === '') return set({ ...spec, brought: null }, null);
    const toMm = { x: spec.bodyMm / 2, y: 0, z: 0 };
    set({ ...spec, brought: { meshId, how: 'join', scale: 1, turnDeg: { x: 0, y: 0, z: 0 }, toMm } }, null);
  };
  const known = meshes.some((one) => one.meshId === brought?.meshId);
  return (
    <Section title={brought ? 'With a brought mesh' : 'Joined with a brought mesh'} open={brought !== null}>
      <select
        className="select select-sm w-full"
        aria-label="Mesh to join with"
        value={brought?.meshId ?? ''}
        onChange={(event) => take(event.target.value)}
      >
        <option value="">none</option>
        {brought && !known && <option value={brought.meshId}>a mesh of an earlier revision</option>}
        {meshes.map((one) => (
          <option key={one.meshId} value={one.meshId}>
            {one.label}
          </option>
        ))}
      </select>
      {meshes.length === 0 && !brought && (
        <p className="text-xs soft">A master that was brought as a mesh, closed, can be joined with this shape.</p>
      )}
      {brought && (
        <>
          <div className="flex gap-1">
            {(['join', 'cut'] as const).map((how) => (
              <button
                key={how}
                type="button"
                className={`btn btn-xs ${brought.how === how ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
                aria-pressed={brought.how === how}
                onClick={() => set({ ...spec, brought: { ...brought, how } }, null)}
              >
                {how === 'join' ? 'joined on' : 'cut out'}
              </button>
            ))}
          </div>
          <SpecField at="brought.toMm.x" label="Its middle, from the nose" step={0.5} />
          <SpecField at="brought.toMm.y" label="To the right" step={0.5} />
          <SpecField at="brought.toMm.z" label="Over the axis" step={0.5} />
          <SpecField at="brought.turnDeg.x" label="Rolled, °" plain step={5} />
          <SpecField at="brought.turnDeg.y" label="Nose down, °" plain step={5} />
          <SpecField at="brought.turnDeg.z" label="Nose to the right, °" plain step={5} />
          <SpecField at="brought.scale" label="As large, times" plain step={0.05} />
        </>
      )}
    </Section>
  );
}
