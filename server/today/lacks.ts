import type { Today } from '../../contract/today.ts';
import { LACK_WORDS } from '../../core/plan/lackWords.ts';
import type { Lack } from '../../core/plan/production.ts';

type Sentence = Pick<Today, 'lead' | 'act' | 'step' | 'to'>;

/** What to do about each, and where. */
const NEXT: Record<Lack, (orderId: string) => Omit<Sentence, 'lead'>> = {
  'no-mold': (orderId) => ({ act: 'Add the mold.', step: 'mold', to: `/orders/${orderId}` }),
  'too-large-for-a-glass': () => ({ act: 'Take a larger glass.', step: 'settings', to: '/settings' }),
  'too-few-injectors': () => ({ act: 'Say how many there are.', step: 'settings', to: '/settings' }),
  'no-material': () => ({ act: 'Order it.', step: 'store', to: '/store' }),
  'no-time': () => ({ act: 'Say who works when.', step: 'hours', to: '/orders/plan' }),
};

/** An order that no evening ahead makes good, by what it lacks. */
export const lackSentence = (whose: string, orderId: string, lack: Lack): Sentence => ({
  lead: `${whose} is short, and ${LACK_WORDS[lack]}.`,
  ...NEXT[lack](orderId),
});
