import { useQuery } from '@tanstack/react-query';
import { HOWS, type Instrument, instrumentBody } from '../../../contract/instruments.ts';
import { FAULTS, type Fault, INSTRUMENT_KINDS, type InstrumentKind } from '../../../core/instruments/lines.ts';
import { TRUST_WORDS } from '../../../core/instruments/trust.ts';
import { type Speaking, useInstruments, useStandIn } from '../../api/instruments.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { ChoiceIn, choices, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

const KIND_WORDS: Record<InstrumentKind, string> = {
  thermometer: 'infrared thermometer',
  scale: 'scale',
  oven: 'microwave',
};
const HOW_WORDS: Record<(typeof HOWS)[number], string> = {
  'stand-in': 'a stand-in, made up',
  lines: 'sends lines by itself',
};
const FAULT_WORDS: Record<Fault, string> = {
  none: 'works as it should',
  dropout: 'drops out',
  stuck: 'is stuck',
  wild: 'says wild values',
};

/** Which instruments stand at the bench; a stand-in plays one that is not there, faults included. */
export function Instruments() {
  const { isError } = useQuery(queries.instruments);
  const all = useInstruments();
  const sheet = useSheet({
    schema: instrumentBody,
    keep: 'instrument',
    seen: { kind: 'thermometer' as InstrumentKind, name: '', how: 'stand-in' as (typeof HOWS)[number] },
  });
  const add = useWrite<Instrument>(
    () => ({ path: '/instruments', body: sheet.values }),
    () => {
      sheet.startAfresh();
      sheet.done();
    },
  );
  return (
    <section className="flex flex-col gap-4">
      <h2 className="text-2xl">Instruments</h2>
      <p className="soft">
        Thermometer, scale and microwave may speak for themselves at the bench. A real one sends lines, as
        docs/instruments.md says; a stand-in plays one that is not there.
      </p>
      {isError && <p className="warn">They cannot be read just now.</p>}
      <ul className="ruled">
        {all.map((one) => (
          <Row key={one.id} one={one} />
        ))}
      </ul>
      <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="flex gap-3 items-start flex-wrap">
        <ChoiceIn at="kind" options={choices(INSTRUMENT_KINDS, KIND_WORDS)} />
        <TextIn at="name" className="w-44" />
        <ChoiceIn at="how" options={choices(HOWS, HOW_WORDS)} />
        <div className="mt-5">
          <Send className="">Add it</Send>
        </div>
      </Sheet>
    </section>
  );
}

function Row({ one }: { one: Speaking }) {
  const taste = useTaste();
  const away = useWrite<Instrument>(() => ({
    path: `/instruments/${one.id}`,
    method: 'PATCH',
    version: one.version,
    body: { away: true },
  }));
  const hands = useStandIn();
  const { now } = one;
  const says =
    !now || now.value === null
      ? 'says nothing yet'
      : one.kind === 'oven'
        ? now.value > 0
          ? `on, at ${Math.round(now.value * 100)} %`
          : 'off'
        : taste.text(now.value, one.kind === 'scale' ? 'mass' : 'temperature');
  return (
    <li className="py-2 flex gap-3 items-center flex-wrap">
      <span className="flex-1 min-w-40">
        <b>{one.name}</b>{' '}
        <span className="soft">
          {KIND_WORDS[one.kind]}, {HOW_WORDS[one.how]}
        </span>
        <span className="label-small block">
          {says}
          {now && now.value !== null && TRUST_WORDS[now.trust] && `: ${TRUST_WORDS[now.trust]}`}
        </span>
      </span>
      {one.how === 'stand-in' && (
        <SelectField
          label="This stand-in"
          value={now?.fault ?? 'none'}
          options={FAULTS.map((fault) => ({ value: fault, label: FAULT_WORDS[fault] }))}
          onChange={(fault) => hands.mutate({ id: one.id, fault })}
        />
      )}
      {one.how === 'lines' && <code className="figure text-xs">{one.id}</code>}
      <button type="button" className="btn btn-sm btn-ghost" disabled={away.isPending} onClick={() => away.mutate()}>
        Put away
      </button>
      <Refusal error={away.error ?? hands.error} />
    </li>
  );
}
