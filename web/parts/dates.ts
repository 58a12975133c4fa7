import { format } from 'date-fns/format';
import { serverNow } from '../api/now.ts';

const moment = (iso: string) => new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
export const dayText = (iso: string) => format(moment(iso), 'EEE d MMM');
export const dateText = (iso: string) => format(moment(iso), 'd MMM yyyy');
/** Today as due days are written. */
export const todayIso = () => format(serverNow(), 'yyyy-MM-dd');
