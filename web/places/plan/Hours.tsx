import { Link } from 'react-router';
import { hoursBody, offBody, type PlanAsked, type WorkHours } from '../../../contract/plan.ts';
import { usual } from '../../../core/defaults.ts';
import { percentText } from '../../../core/units/show.ts';
import { useWrite } from '../../api/write.ts';
import { dayText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Who works when: what the evenings are planned with. */
export function Hours({ asked }: { asked: PlanAsked }) {
  const { workshop } = useTaste();
  return (
    <section className="flex flex-col gap-5 no-print" aria-label="Hours">
      <h2>Hours</h2>
      {asked.hours.every(({ hours }) => hours === null) && (
        <p className="soft">
          One pair of hands, {workshop.eveningH} h every evening <span className="default-mark">default</span>, until
          hours are given here.
        </p>
      )}
      {asked.hours.map((one) => (
        <HoursOf key={one.makerId} of={one} />
      ))}
      <DaysOff asked={asked} />
      <p className="soft text-sm">
        {workshop.glasses} glasses an evening
        {workshop.glasses === usual('glasses') && <Default />}, {Math.round(asked.packing.packS)} s a bag
        {asked.packing.of > 0
          ? `, by the last ${asked.packing.of}`
          : asked.packing.packS === usual('packS') && <Default />}
        , {usual('setUpMin')} min to set up and {usual('changeMin')} for each further colour
        <Default />, {percentText(usual('confidence'))} sure
        <Default />:{' '}
        <Link to="/settings" className="link">
          settings
        </Link>
        .
      </p>
    </section>
  );
}

const Default = () => <span className="default-mark ml-1">default</span>;

function HoursOf({ of }: { of: WorkHours }) {
  const { workshop } = useTaste();
  const sheet = useSheet({
    schema: hoursBody,
    keep: `hours/${of.makerId}`,
    seen: { makerId: of.makerId, hours: of.hours ?? WEEKDAYS.map(() => workshop.eveningH) },
  });
  const save = useWrite<PlanAsked>(() => ({ path: '/plan/hours', body: sheet.values }), sheet.done);
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()}>
      <h3>
        {of.name} {of.hours === null && <span className="soft text-sm">not given</span>}
      </h3>
      <div className="grid grid-cols-4 gap-2">
        {WEEKDAYS.map((day, index) => (
          <FigureIn key={day} at={`hours.${index}`} label={`${day}, h`} />
        ))}
      </div>
      <Send className="btn-sm">Keep {of.name}’s hours</Send>
    </Sheet>
  );
}

function DaysOff({ asked }: { asked: PlanAsked }) {
  const sheet = useSheet({ schema: offBody, keep: 'day-off', seen: { day: '', makerId: '' } });
  const add = useWrite<PlanAsked>(
    () => ({ path: '/plan/off', body: { ...sheet.values, makerId: sheet.values.makerId || null } }),
    sheet.done,
  );
  const end = useWrite<PlanAsked, string>((id) => ({ path: `/plan/off/${id}/end` }));
  const nameOf = (makerId: string | null) =>
    makerId === null ? 'nobody works' : `without ${asked.hours.find((one) => one.makerId === makerId)?.name ?? ''}`;
  return (
    <div className="flex flex-col gap-2">
      <h3>Days off</h3>
      {asked.off.length > 0 && (
        <ul className="ruled">
          {asked.off.map(({ id, day, makerId }) => (
            <li key={id} className="flex items-center gap-2 py-1">
              <span className="flex-1">
                {dayText(day)}, {nameOf(makerId)}
              </span>
              <button type="button" className="btn btn-sm btn-ghost" onClick={() => end.mutate(id)}>
                Work it after all
              </button>
            </li>
          ))}
        </ul>
      )}
      <Refusal error={end.error} />
      <Sheet of={sheet} by={add} onSend={() => add.mutate()}>
        <div className="grid grid-cols-2 gap-2">
          <TextIn at="day" type="date" />
          <ChoiceIn
            at="makerId"
            label="Who is off"
            options={[
              { value: '', label: 'everybody' },
              ...asked.hours.map(({ makerId, name }) => ({ value: makerId, label: name })),
            ]}
          />
        </div>
        <Send className="btn-sm">Take it off</Send>
      </Sheet>
    </div>
  );
}
