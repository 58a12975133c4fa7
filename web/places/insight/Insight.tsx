import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns/format';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Insight as Figures, PourFigures } from '../../../contract/insight.ts';
import { chart, compare } from '../../../core/yield/counts.ts';
import { call } from '../../api/client.ts';
import { queries } from '../../api/queries.ts';
import { LineChart } from '../../parts/Chart.tsx';
import { SelectField } from '../../parts/Fields.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { reasonWords } from '../../parts/grades.ts';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** What the record says: rejects against their own limits, hardness against what was wanted, where the grams go. */
export function Insight() {
  const { data } = useQuery({ queryKey: ['insight'], queryFn: () => call<Figures>('/insight') });
  const molds = useQuery(queries.molds).data?.items;
  const [moldId, setMold] = useState('');
  if (!data || !molds) return <Waiting />;
  const counted = data.pours.filter((pour) => pour.made > 0);
  if (counted.length === 0) {
    return (
      <Page title="Insight" tab="Insight">
        <Empty
          say="Nothing is counted yet."
          then="Close a pour whose cavities were looked at. From then on what cannot be sold is charted against their own limits."
          to="/pours"
          action="To the pours"
        />
      </Page>
    );
  }
  const mine = moldId ? counted.filter((pour) => pour.moldIds.includes(moldId)) : counted;
  return (
    <Page
      title="Insight"
      tab="Insight"
      under={`From ${counted.length} counted pours.`}
      actions={
        <SelectField
          label="Mold"
          value={moldId}
          options={[{ value: '', label: 'all molds' }, ...molds.map((mold) => ({ value: mold.id, label: mold.name }))]}
          onChange={setMold}
          className="w-72"
        />
      }
    >
      {mine.length === 0 ? (
        <p className="text-lg">No counted pour of this mold yet.</p>
      ) : (
        <Rejects pours={mine.slice(-60)} />
      )}
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)] gap-12">
        <HardnessChart pours={mine} />
        <Faults faults={data.faults} />
      </div>
      {mine.length > 0 && <Grams pours={mine} />}
      {moldId === '' && <FirstPours of={data.firstPours} />}
    </Page>
  );
}

const label = (pour: PourFigures) => format(new Date(pour.at), 'd MMM');

function Rejects({ pours }: { pours: PourFigures[] }) {
  const navigate = useNavigate();
  const figures = chart({ points: pours.map(({ made, rejected }) => ({ made, rejected })) });
  const out = figures.points.filter((point) => point.out).length;
  const run = figures.runs.at(-1);
  const half = Math.floor(pours.length / 2);
  const sums = (rows: PourFigures[]) =>
    rows.reduce((sum, row) => ({ made: sum.made + row.made, rejected: sum.rejected + row.rejected }), {
      made: 0,
      rejected: 0,
    });
  const [before, since] = [sums(pours.slice(0, half)), sums(pours.slice(half))];
  const says = `Rejects average ${(figures.pBar * 100).toFixed(1)} %. ${out === 0 ? 'No pour is outside its limits.' : `${out} ${out === 1 ? 'pour is' : 'pours are'} outside the limits.`}`;
  const percent = (value: number) => value * 100;
  return (
    <section>
      <h2 className="text-2xl mb-1">{says}</h2>
      <p className="soft mb-3">
        {run
          ? `A run of ${run.length} pours on one side of the mean, from ${pours[run.start]?.code}: something changed then. `
          : ''}
        {half > 0 &&
          before.made > 0 &&
          since.made > 0 &&
          `Earlier against later half: ${compare({ a: before, b: since }).sentence}`}
      </p>
      <LineChart
        says={says}
        unit=" %"
        most={Math.ceil(Math.max(20, ...figures.points.map((point) => point.p * 115)) / 10) * 10}
        labels={pours.map(label)}
        onPoint={(index) => pours[index] && navigate(`/pours/${pours[index].id}`)}
        series={[
          {
            label: 'upper limit',
            values: figures.points.map((point) => percent(point.ucl)),
            colour: '--edge',
            stepped: true,
          },
          {
            label: 'lower limit',
            values: figures.points.map((point) => percent(point.lcl)),
            colour: '--edge',
            stepped: true,
          },
          { label: 'mean', values: figures.points.map(() => percent(figures.pBar)), colour: '--rest', dashed: true },
          {
            label: 'rejects',
            values: figures.points.map((point) => percent(point.p)),
            colour: '--ink',
            points: true,
            pointColours: figures.points.map((point, i) => (point.out ? '#d8481f' : (pours[i]?.hex ?? '#888888'))),
          },
        ]}
      />
    </section>
  );
}

function HardnessChart({ pours }: { pours: PourFigures[] }) {
  const read = pours.filter((pour) => pour.hardness !== null && pour.wantedHardness !== null).slice(-50);
  if (read.length === 0) return <p className="soft">No hardness is read yet beside a wanted one.</p>;
  const off = read.reduce((sum, pour) => sum + (pour.hardness ?? 0) - (pour.wantedHardness ?? 0), 0) / read.length;
  const says = `Read ${Math.abs(off).toFixed(1)} points ${off > 0 ? 'firmer' : 'softer'} than wanted, on average of ${read.length}.`;
  return (
    <section>
      <h2 className="mb-2">{says}</h2>
      <LineChart
        says={says}
        unit=""
        heightPx={210}
        labels={read.map(label)}
        series={[
          { label: 'wanted', values: read.map((pour) => pour.wantedHardness), colour: '--rest', stepped: true },
          {
            label: 'read',
            values: read.map((pour) => pour.hardness),
            colour: '--heat',
            points: true,
            pointColours: read.map((pour) => pour.hex),
          },
        ]}
      />
    </section>
  );
}

function Faults({ faults }: { faults: Figures['faults'] }) {
  const most = faults[0]?.count ?? 1;
  return (
    <section>
      <h2 className="mb-2">What goes wrong</h2>
      {faults.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul>
        {faults.slice(0, 8).map(({ reason, count }) => (
          <li key={reason} className="grid grid-cols-[96px_minmax(0,1fr)_auto] gap-3 items-end py-0.5">
            <span>{reasonWords(reason)}</span>
            <Graduated
              value={count}
              most={most}
              label={`${reasonWords(reason)}: ${count}`}
              widthPx={180}
              colour="var(--warn)"
            />
            <b className="figure">{count}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Grams({ pours }: Pick<Figures, 'pours'>) {
  const { text } = useTaste();
  const sum = (of: (pour: PourFigures) => number) => pours.reduce((total, pour) => total + of(pour), 0);
  const cooked = sum((pour) => pour.cookedG);
  const weighed = (of: 'residueG' | 'degassedG') => pours.filter((pour) => pour[of] !== null).length;
  const all: [string, number, string, boolean][] = [
    ['good baits', sum((pour) => pour.goodG), 'var(--rest)', true],
    ['to remelt', sum((pour) => pour.returnedG), 'var(--edge)', true],
    ['rejects', sum((pour) => pour.rejectG), 'var(--warn)', true],
    ['on glass and felt', sum((pour) => pour.residueG ?? 0), 'var(--rule)', weighed('residueG') > 0],
    ['lost in degassing', sum((pour) => pour.degassedG ?? 0), 'var(--soft)', weighed('degassedG') > 0],
  ];
  // What nobody ever weighed is no nought.
  const parts = all.filter(([, , , known]) => known);
  const ofAll = (n: number) =>
    n === pours.length ? 'of every cup' : n === 0 ? 'of none' : `of ${n} of ${pours.length} cups`;
  const lost = cooked - parts.reduce((total, [, g]) => total + g, 0);
  return (
    <section>
      <h2 className="mb-2">Of {text(cooked, 'mass')} cooked</h2>
      <div className="flex border-[2.5px] border-[var(--ink)] h-9">
        {parts.map(([name, g, fill]) => (
          <span key={name} style={{ width: `${(100 * g) / cooked}%`, background: fill }} />
        ))}
      </div>
      <p className="flex gap-7 mt-1.5 flex-wrap">
        {[...parts, ['unaccounted', lost, 'transparent'] as const].map(([name, g]) => (
          <span key={name}>
            <b className="figure">{((100 * g) / cooked).toFixed(1)} %</b> {name}{' '}
            <span className="soft figure text-sm">{text(g, 'mass')}</span>
          </span>
        ))}
      </p>
      <p className="soft mt-1">
        What stayed on glass and felt was weighed {ofAll(weighed('residueG'))}, what degassing took{' '}
        {ofAll(weighed('degassedG'))}; the rest of it is in what nobody can account for.
      </p>
    </section>
  );
}

/** Plastic that proved new molds is in no yield, and not forgotten either. */
function FirstPours({ of: { count, weighed, grams } }: { of: Figures['firstPours'] }) {
  const { text } = useTaste();
  if (count === 0) return null;
  const open = count - weighed;
  return (
    <p className="soft">
      Beside all this, plain first pours of {count} new {count === 1 ? 'mold' : 'molds'}:{' '}
      {weighed > 0 && text(grams, 'mass')}
      {weighed > 0 && open > 0 && `, ${open} `}
      {open > 0 && 'not weighed'}.
    </p>
  );
}
