import { undoBody } from '../../contract/fields.ts';
import { UNDO } from '../../contract/undo.ts';
import { endpoint } from '../http/endpoint.ts';
import { UNDO_TOUCHES, undo } from './store.ts';

export const undoEndpoints = [
  endpoint({
    method: 'POST',
    path: UNDO,
    body: undoBody,
    touches: UNDO_TOUCHES,
    run: ({ db, body: { rowId, id }, now }) => undo(db, rowId, id, now),
  }),
];
