import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Order } from '../../../contract/orders.ts';
import type { Paper } from '../../../core/mold/tiles.ts';
import type { LabelSheet } from '../../../core/plan/labels.ts';
import { queries } from '../../api/queries.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { fileName, handOver } from '../../parts/files.ts';
import { useTaste } from '../../parts/taste.tsx';

/** Labels, packing list and delivery note, as files that print as they are. */
export function Papers({ order }: { order: Order }) {
  const { taste, workshop, money } = useTaste();
  const us = taste.system === 'us';
  const [sheet, setSheet] = useState<LabelSheet>(us ? 'Letter' : 'A4');
  const [skip, setSkip] = useState('0');
  const [problem, setProblem] = useState<string | null>(null);
  const network = useQuery(queries.network).data;
  const customers = useQuery(queries.customers).data?.items;
  const bags = order.bags.filter(({ unpacked }) => !unpacked);
  const paper: Paper = us ? 'Letter' : 'A4';
  const make = (ending: string, pdf: (papers: typeof import('./papers.ts')) => Promise<Uint8Array>) => () => {
    setProblem(null);
    import('./papers.ts')
      .then(pdf)
      .then((bytes) => handOver(bytes, 'application/pdf', fileName(order.code, ending)))
      .catch((error: Error) => setProblem(`It could not be drawn: ${error.message}`));
  };
  const home = network?.urls[0] ?? location.origin;
  const contact = customers?.find(({ id }) => id === order.customerId)?.contact ?? '';
  return (
    <section className="flex flex-col gap-2">
      <h2>On paper</h2>
      <div className="flex gap-3 items-end flex-wrap">
        <SelectField
          label="Labels on"
          className="w-36"
          value={sheet}
          options={[
            { value: 'A4', label: 'A4, 24' },
            { value: 'Letter', label: 'Letter, 30' },
            { value: 'Roll', label: 'a roll' },
          ]}
          onChange={setSheet}
        />
        {sheet !== 'Roll' && (
          <SelectField
            label="Of it used up"
            className="w-24"
            value={skip}
            options={Array.from({ length: sheet === 'A4' ? 24 : 30 }, (_, i) => ({
              value: String(i),
              label: String(i),
            }))}
            onChange={setSkip}
          />
        )}
      </div>
      <div className="flex gap-2 flex-wrap">
        <button
          type="button"
          className="btn btn-line"
          disabled={bags.length === 0}
          onClick={make('labels.pdf', ({ labelsPdf }) => labelsPdf(bags, sheet, home, Number(skip)))}
        >
          Labels of {bags.length} {bags.length === 1 ? 'bag' : 'bags'}
        </button>
        <button
          type="button"
          className="btn btn-line"
          onClick={make('packing-list.pdf', ({ packingPdf }) => packingPdf(order, paper))}
        >
          Packing list
        </button>
        <button
          type="button"
          className="btn btn-line"
          onClick={make('delivery-note.pdf', ({ deliveryPdf }) =>
            deliveryPdf(order, paper, { workshop, contact, money }),
          )}
        >
          Delivery note
        </button>
      </div>
      {problem && <p className="heat font-bold">{problem}</p>}
    </section>
  );
}
