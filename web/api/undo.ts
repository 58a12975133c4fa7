import { UNDO } from '../../contract/undo.ts';
import { useWrite } from './write.ts';

/** Takes a row of any log back, by its id. */
export const useUndo = () => useWrite<object, string>((rowId) => ({ path: UNDO, body: { rowId } }));
