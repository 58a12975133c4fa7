import { transferHandlers } from 'comlink';
import { Failure, type RefusalCode, type Said } from '../../core/failure.ts';

interface Carried {
  refusal?: { code: RefusalCode; message: string | Said; path?: string | undefined };
}

const plain = transferHandlers.get('throw');
if (!plain) throw new Error('comlink has no handler for what is thrown');

/** A refusal crosses between a worker and the page with its figures, so that it can be said in the maker's units. */
transferHandlers.set('throw', {
  canHandle: plain.canHandle,
  serialize: (thrown) => {
    const { value } = thrown as { value: unknown };
    if (!(value instanceof Failure)) return plain.serialize(thrown);
    return [{ refusal: { code: value.code, message: value.said ?? value.message, path: value.path } }, []];
  },
  deserialize: (carried) => {
    const { refusal } = carried as Carried;
    if (refusal) throw new Failure(refusal.code, refusal.message, refusal.path);
    return plain.deserialize(carried);
  },
});
