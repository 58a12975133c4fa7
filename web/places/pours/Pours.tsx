import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { queries } from '../../api/queries.ts';
import { dateText } from '../../parts/dates.ts';
import { TextField } from '../../parts/Fields.tsx';
import { gradesText } from '../../parts/grades.ts';
import { timeText } from '../../parts/hours.ts';
import { Empty, More, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { ThisEvening } from './ThisEvening.tsx';

export function Pours() {
  const { text } = useTaste();
  const [q, setQ] = useState('');
  const list = useInfiniteQuery(queries.pours(q));
  const open = useQuery(queries.openPours).data?.items;
  const { data: newest } = useQuery({ ...queries.pour(open?.[0]?.id ?? ''), enabled: (open?.length ?? 0) > 0 });
  if (!list.data || !open) return <Waiting />;
  // Several cups of one evening stand in their order; one alone stands large.
  const evening = newest && newest.evening.cups.length > 1 ? newest.evening : undefined;
  const alone = open.filter((pour) => pour.leadId === null && !evening?.cups.some((cup) => cup.id === pour.id));
  const rows = list.data.pages.flatMap((page) => page.items);
  if (rows.length === 0 && q === '') {
    return (
      <Page title="Pours" tab="Pours" actions={<Begin />}>
        <Empty
          say="Nothing poured yet."
          then="An order that is short lays out its own pour. Or choose a colour and a mold, and it is sized and scaled for you."
          to="/pours/new"
          action="Lay out the first pour"
        />
      </Page>
    );
  }
  return (
    <Page title="Pours" tab="Pours" actions={<Begin />} under="One pour is one cup and all that came out of it.">
      {evening && <ThisEvening key={evening.id} evening={evening} />}
      {alone.map((pour) => (
        <Link
          key={pour.id}
          to={`/pours/${pour.id}/bench`}
          className="sheet border-l-8 p-4 flex gap-5 items-center"
          style={{ borderLeftColor: 'var(--heat)' }}
        >
          <span className="w-10 h-10 rounded-full border-2 border-[var(--ink)]" style={{ background: pour.hex }} />
          <span className="flex-1">
            <span className="text-xl font-bold block">
              {pour.recipeName} <span className="figure text-base soft">{pour.code}</span>
              {pour.colourwayName !== pour.recipeName && (
                <span className="text-base font-normal"> for {pour.colourwayName}</span>
              )}
            </span>
            {pour.startedAt
              ? `${pour.shots} shots drawn, ${gradesText(pour)} so far`
              : `laid out, ${text(pour.cookMl, 'volume')}`}
          </span>
          <span className="btn btn-primary btn-lg">To the bench</span>
        </Link>
      ))}
      <TextField label="Find a pour" value={q} onChange={setQ} className="w-72" placeholder="code or colour" />
      <table className="w-full text-left">
        <thead className="label-small">
          <tr className="border-b-2 border-[var(--rule)]">
            <th className="py-1.5 w-8" aria-label="Colour" />
            <th className="w-14 sm:w-20">Pour</th>
            <th>Colour</th>
            <th className="hidden sm:table-cell">Baits</th>
            <th className="text-right hidden md:table-cell">Cooked</th>
            <th className="text-right hidden sm:table-cell">Shots</th>
            <th className="text-right">To sell</th>
            <th className="text-right">Own water</th>
            <th className="text-right">Remelt</th>
            <th className="text-right">When</th>
          </tr>
        </thead>
        <tbody>
          {rows
            .filter((row) => row.closedAt)
            .map((pour) => (
              <tr key={pour.id} className="border-b border-[var(--rule)] row-hover">
                <td className="py-2">
                  <span
                    className="w-4 h-4 rounded-full border border-[var(--ink)] block"
                    style={{ background: pour.hex }}
                  />
                </td>
                <td className="figure">
                  <Link to={`/pours/${pour.id}`} className="link">
                    {pour.code}
                  </Link>
                </td>
                <td className="font-bold">
                  {pour.colourwayName === pour.recipeName
                    ? pour.recipeName
                    : pour.leadId === null
                      ? pour.colourwayName
                      : `${pour.colourwayName}, ${pour.recipeName}`}
                </td>
                <td className="hidden sm:table-cell">{pour.baits}</td>
                <td className="figure text-right hidden md:table-cell">{text(pour.cookMl, 'volume')}</td>
                <td className="figure text-right hidden sm:table-cell">
                  {pour.discardedAt ? (
                    <span className="soft font-[family-name:var(--font-text)]">put away</span>
                  ) : (
                    pour.shots
                  )}
                </td>
                <td className="figure text-right">{pour.sell}</td>
                <td className="figure text-right soft">{pour.own}</td>
                <td
                  className={`figure text-right ${pour.remelt / Math.max(1, pour.sell + pour.own + pour.remelt) > 0.1 ? 'warn' : 'soft'}`}
                >
                  {pour.remelt}
                </td>
                <td className="soft text-right sm:whitespace-nowrap">
                  {dateText(pour.laidOutAt)} <span className="hidden sm:inline">{timeText(pour.laidOutAt)}</span>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      <More list={list}>Older pours</More>
    </Page>
  );
}

function Begin() {
  return (
    <>
      <Link to="/dry-run" className="btn btn-line">
        Dry run
      </Link>
      <Link to="/pours/new" className="btn btn-primary">
        Lay out a pour
      </Link>
    </>
  );
}
