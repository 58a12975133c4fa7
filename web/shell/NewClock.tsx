import { useState } from 'react';
import { type Clock, clockBody } from '../../contract/workshop.ts';
import { useWrite } from '../api/write.ts';
import { FigureIn, TextIn } from '../parts/sheet/In.tsx';
import { Send, Sheet } from '../parts/sheet/Sheet.tsx';
import { useSheet } from '../parts/sheet/useSheet.ts';

/** A clock that no step of the work starts. */
export function NewClock() {
  const [begun] = useState({ label: '', minutes: 10 as number | null });
  const sheet = useSheet({ schema: clockBody, keep: 'clock', seen: begun });
  const add = useWrite<Clock>(
    () => ({ path: '/clocks', body: sheet.values }),
    () => {
      sheet.set('label', '');
      sheet.done();
    },
  );
  return (
    <Sheet
      of={sheet}
      by={add}
      onSend={() => add.mutate()}
      className="grid grid-cols-[1fr_6rem] gap-x-3 pt-3 items-start"
    >
      <TextIn at="label" />
      <FigureIn at="minutes" />
      <div className="col-span-2">
        <Send className="">Start</Send>
      </div>
    </Sheet>
  );
}
