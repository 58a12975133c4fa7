import { v7 } from 'uuid';

/** A time-ordered id, or the one a bench tap brought along. */
export const newId = (own?: string): string => own ?? v7();
