import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { type Master, measuredRevision, meshRevision, volumeBody } from '../../../contract/masters.ts';
import { MASTER_G_PER_ML, MASTER_KINDS, type MasterKind } from '../../../core/mold/masterStuff.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { ChoiceIn, choices, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { KIND_WORDS } from '../../parts/words/master.ts';
import { BringMesh } from './BringMesh.tsx';
import { DimensionFields, type Dimensions, toWeigh, type Volume, VolumeFields, volumeBodyOf } from './Measures.tsx';

export function MeshRevision({ master, onDone }: { master: Master; onDone(): void }) {
  const [meshId, setMesh] = useState<string | null>(null);
  return (
    <section className="flex flex-col gap-4">
      <BringMesh action="This is the shape" onReady={(mesh) => setMesh(mesh.id)} />
      {meshId && <MeshReason master={master} meshId={meshId} onDone={onDone} />}
    </section>
  );
}

function MeshReason({ master, meshId, onDone }: { master: Master; meshId: string; onDone(): void }) {
  const [begun] = useState({ reason: '', kind: master.kind });
  const bodyOf = useCallback(
    (typed: { reason: string; kind: MasterKind }) => ({ ...typed, parentId: master.latest.id, meshId }),
    [master.latest.id, meshId],
  );
  const sheet = useSheet({ schema: meshRevision, keep: `master/${master.id}/mesh`, seen: begun, body: bodyOf });
  const add = useWrite<Master>(
    () => ({ path: `/masters/${master.id}/revisions`, body: bodyOf(sheet.values) }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex gap-4 items-start">
      <TextIn at="reason" className="flex-1" autoFocus hint="the new sizes and the volume come from the mesh" />
      <ChoiceIn at="kind" className="w-44" options={choices(MASTER_KINDS, KIND_WORDS)} />
      <div className="mt-6">
        <Send className="">Keep v{master.latest.number + 1}</Send>
      </div>
    </Sheet>
  );
}

export function VolumeForm({ master, onDone }: { master: Master; onDone(): void }) {
  const usual = MASTER_G_PER_ML[master.kind];
  const [begun] = useState(() => toWeigh(usual));
  const sheet = useSheet<Volume>({
    schema: volumeBody,
    keep: `revision/${master.latest.id}/volume`,
    seen: begun,
    body: wholeVolume,
  });
  const add = useWrite<Master, { sure: boolean }>(
    ({ sure }) => ({
      path: `/masters/${master.id}/revisions/${master.latest.id}/volumes`,
      body: { ...wholeVolume(sheet.values), sure },
    }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={(sure) => add.mutate({ sure })} className="sheet p-4 mt-3 flex flex-col gap-3">
      <VolumeFields under="" value={sheet.values} usualDensity={usual} canWait={false} />
      <Send className="">Keep this volume</Send>
    </Sheet>
  );
}

/** A reading that has to be one: what is not weighed yet is missing. */
const wholeVolume = ({ how, grams, densityGPerMl, ml }: Volume) =>
  how === 'displaced' ? { how, ml } : { how: 'weighed', grams, densityGPerMl };

interface Revised extends Dimensions {
  reason: string;
  parentId: string;
  secondParentId: string | null;
  kind: MasterKind;
  volume: Volume;
}

const revisionOf = ({ secondParentId, volume, ...revision }: Revised) => ({
  ...revision,
  ...(secondParentId === null ? {} : { secondParentId }),
  volume: volumeBodyOf(volume),
});

export function ReviseForm({ master, onDone }: { master: Master; onDone(): void }) {
  const { lengthMm, widthMm, heightMm, thickestMm } = master.latest;
  const usual = MASTER_G_PER_ML[master.kind];
  const [begun] = useState<Revised>(() => ({
    reason: '',
    parentId: master.latest.id,
    secondParentId: null,
    kind: master.kind,
    lengthMm,
    widthMm,
    heightMm,
    thickestMm,
    volume: toWeigh(usual),
  }));
  const sheet = useSheet<Revised>({
    schema: measuredRevision,
    keep: `master/${master.id}/revision/${master.latest.id}`,
    seen: begun,
    body: revisionOf,
  });
  const add = useWrite<Master, { sure: boolean }>(
    ({ sure }) => ({ path: `/masters/${master.id}/revisions`, body: { ...revisionOf(sheet.values), sure } }),
    () => {
      sheet.done();
      onDone();
    },
  );
  const others = useQuery(queries.masters).data?.items.filter((row) => row.id !== master.id) ?? [];
  const options = master.revisions.map((revision) => ({
    value: revision.id,
    label: `v${revision.number}: ${revision.reason}`,
  }));
  return (
    <Sheet
      of={sheet}
      by={add}
      onSend={(sure) => add.mutate({ sure })}
      className="sheet p-5 grid grid-cols-1 md:grid-cols-2 gap-8"
    >
      <div className="flex flex-col gap-4">
        <TextIn at="reason" autoFocus hint="wrist thinner so that it kicks slower" />
        <ChoiceIn at="parentId" options={options} />
        <ChoiceIn
          at="secondParentId"
          options={[
            { value: '', label: 'nothing else' },
            ...options.filter((one) => one.value !== sheet.values.parentId),
            ...others.map((row) => ({ value: row.latest.id, label: `${row.name} v${row.latest.number}` })),
          ]}
          hint="an old tail on a new body has two parents"
        />
        <ChoiceIn
          at="kind"
          options={choices(MASTER_KINDS, KIND_WORDS)}
          hint="a specimen is cast in resin, clay becomes a print"
          onPicked={(next) =>
            sheet.set('volume', { ...sheet.values.volume, densityGPerMl: MASTER_G_PER_ML[next as MasterKind] })
          }
        />
      </div>
      <div className="flex flex-col gap-4">
        <DimensionFields />
        <VolumeFields
          under="volume."
          value={sheet.values.volume}
          usualDensity={MASTER_G_PER_ML[sheet.values.kind]}
          canWait
        />
        <Send className="">Keep v{master.latest.number + 1}</Send>
      </div>
    </Sheet>
  );
}
