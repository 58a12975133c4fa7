import { serverNow } from '../api/now.ts';
import { dayText } from './dates.ts';
import { timeText } from './hours.ts';

/** Says of a mold whose rubber still sets when it may be poured; nothing of one that is ready. */
export function Ready({ readyAt }: { readyAt: string | null }) {
  if (readyAt === null) return null;
  if (readyAt === 'unmixed') return <b className="warn">only planned, not mixed yet</b>;
  if (Date.parse(readyAt) <= serverNow()) return <b className="warn">ready to demold; tick its step</b>;
  return (
    <b className="warn">
      sets until {dayText(readyAt)} {timeText(readyAt)}
    </b>
  );
}
