import { useWrite } from './write.ts';

/** A file of orders is taken back in one. */
export const useUndoImport = () => useWrite<object, string>((id) => ({ path: `/orders/imports/${id}/take-back` }));
