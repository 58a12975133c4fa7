import { format } from 'date-fns/format';

const moment = (iso: string) => new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
export const dayText = (iso: string) => format(moment(iso), 'EEE d MMM');
export const dateText = (iso: string) => format(moment(iso), 'd MMM yyyy');
