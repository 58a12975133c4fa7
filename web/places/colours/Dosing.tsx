import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import { type Dose, keepBody, type Ledger, ledgerBody, ledgerPatch, type Recipe } from '../../../contract/recipes.ts';

import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { cupsText } from '../../../core/units/show.ts';
import { useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Caution } from '../../parts/Caution.tsx';
import { DoseBoard, withTaps } from '../../parts/DoseBoard.tsx';
import { dateText } from '../../parts/dates.ts';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { Photos } from '../../parts/Photos.tsx';
import { PutAway, ThrowOut } from '../../parts/PutAway.tsx';
import { BaitInPlastic } from '../../parts/plastic/BaitInPlastic.tsx';
import { Foreseen, useShapes } from '../../parts/plastic/Foreseen.tsx';
import { Looks } from '../../parts/plastic/Looks.tsx';
import { meltOfDoses } from '../../parts/plastic/melts.ts';
import { useChords } from '../../parts/plastic/useChords.ts';
import { FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

export function DosingStart() {
  const navigate = useNavigate();
  const { text } = useTaste();
  const ledgers = useQuery(queries.ledgers);
  const [begun] = useState({ title: '', batchMl: ML_PER_CUP });
  const sheet = useSheet({ schema: ledgerBody, keep: 'ledger', seen: begun });
  const open = useWrite<Ledger>(
    () => ({ path: '/ledgers', body: sheet.values }),
    (ledger) => {
      sheet.done();
      navigate(`/colours/dosing/${ledger.id}`);
    },
  );
  return (
    <Page
      title="Dose by eye"
      tab="Dosing"
      under="20, look, 10 more, one drop of black: tap each dose as it falls, and the total is the recipe."
    >
      <Sheet of={sheet} by={open} onSend={() => open.mutate()} className="flex gap-4 items-start flex-wrap">
        <TextIn at="title" autoFocus className="w-80" hint="a working name; it can change" />
        <FigureIn at="batchMl" className="w-44" isDefault={sheet.values.batchMl === ML_PER_CUP} />
        <div className="mt-5">
          <Send>Open the ledger</Send>
        </div>
      </Sheet>
      <section className="max-w-2xl">
        <h2 className="mb-2">Ledgers</h2>
        {ledgers.data?.items.length === 0 && <p className="soft">None yet.</p>}
        <ul className="ruled">
          {inUse(ledgers.data?.items ?? []).map((ledger) => (
            <li key={ledger.id}>
              <Link to={`/colours/dosing/${ledger.id}`} className="flex gap-4 py-2 row-hover">
                <span className="font-bold flex-1">{ledger.title}</span>
                <span className="figure">{text(ledger.batchMl, 'volume')}</span>
                <span className="soft w-40">{ledger.recipeId ? 'kept as a recipe' : 'open'}</span>
                <span className="soft">{dateText(ledger.createdAt)}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
    </Page>
  );
}

export function DosingBench() {
  const { id = '' } = useParams();
  const { data: ledger, error } = useQuery(queries.ledger(id));
  const materials = useQuery(queries.materials);
  const { text } = useTaste();
  const navigate = useNavigate();
  const taps = useTaps();
  const [begun] = useState({ name: '', hex: '#3f7d86' });
  const sheet = useSheet({ schema: keepBody, keep: `ledger/${id}`, seen: begun });
  const keep = useWrite<Recipe>(
    () => ({ path: `/ledgers/${id}/keep`, body: sheet.values }),
    (recipe) => {
      sheet.done();
      navigate(`/colours/${recipe.id}`);
    },
  );
  if (isGone(error, ledger)) return <Missing error={error} back="Dosing ledgers" backTo="/colours/dosing" />;
  if (!ledger || !materials.data) return <Waiting />;
  const doses: Dose[] = withTaps(ledger.doses, taps, id, materials.data.items);
  return (
    <Page
      title={ledger.title}
      tab="Dosing"
      under={`${text(ledger.batchMl, 'volume')} in the cup (${cupsText(ledger.batchMl)}). Every tap is kept at once.`}
    >
      <Dosed doses={doses} materials={materials.data.items} ledger={ledger} />
      <Sheet
        of={sheet}
        by={{ error: keep.error, isPending: keep.isPending || doses.length === 0 }}
        onSend={() => keep.mutate()}
        className="flex gap-4 items-start border-t-2 border-[var(--rule)] pt-4 flex-wrap"
      >
        <TextIn at="name" className="w-72" />
        <TextIn at="hex" type="color" />
        <div className="mt-5">
          <Send>Keep as recipe</Send>
        </div>
        {doses.length === 0 && <p className="soft mt-8">Nothing is dosed yet.</p>}
        {ledger.recipeId && (
          <Link to={`/colours/${ledger.recipeId}`} className="link mt-8">
            kept before
          </Link>
        )}
      </Sheet>
      <Photos aboutType="ledger" aboutId={id} />
      <LedgerName key={ledger.id} ledger={ledger} />
      <PutAway kind="ledgers" row={ledger}>
        {doses.length === 0 && <ThrowOut kind="ledgers" id={id} onGone={() => navigate('/colours/dosing')} />}
      </PutAway>
      <Caution about={['hot', 'powder']} />
    </Page>
  );
}

/** The board with how it looks so far beside it, and under it all that can be foreseen and seen. */
function Dosed({ doses, materials, ledger }: { doses: Dose[]; materials: Material[]; ledger: Ledger }) {
  const { measures, workshop } = useTaste();
  const { dropsPerMl } = workshop;
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const melt = useMemo(
    () => meltOfDoses(doses, materials, ledger.batchMl, { measures, dropsPerMl }),
    [doses, materials, ledger.batchMl, measures, dropsPerMl],
  );
  return (
    <>
      <DoseBoard
        ledgerId={ledger.id}
        doses={doses}
        materials={materials}
        batchMl={ledger.batchMl}
        picture={
          chords && doses.length > 0 ? (
            <BaitInPlastic chords={chords} melt={melt} ground="white" label="A bait of what is in the cup" />
          ) : undefined
        }
      />
      {doses.length > 0 && (
        <>
          <Foreseen melt={melt} name={ledger.title} />
          <Looks ledgerId={ledger.id} melt={melt} />
        </>
      )}
    </>
  );
}

/** The working name, until it is a recipe. */
function LedgerName({ ledger }: { ledger: Ledger }) {
  const sheet = useSheet({ schema: ledgerPatch, keep: `ledger/${ledger.id}/name`, seen: { title: ledger.title } });
  const save = useWrite<Ledger>(
    () => ({ path: `/ledgers/${ledger.id}`, method: 'PATCH', version: ledger.version, body: sheet.values }),
    sheet.done,
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex gap-3 items-start flex-wrap">
      <TextIn at="title" className="w-72" />
      <div className="mt-5">
        <Send className="" onlyChanged>
          Rename it
        </Send>
      </div>
    </Sheet>
  );
}
