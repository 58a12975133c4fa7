import type { Today } from '../../contract/today.ts';
import type { Lack } from '../../core/plan/production.ts';

type Sentence = Pick<Today, 'lead' | 'act' | 'step' | 'to'>;

/** An order that no evening ahead makes good, by what it lacks. */
export function lackSentence(whose: string, orderId: string, lack: Lack): Sentence {
  const said: Record<Lack, Sentence> = {
    'no-mold': {
      lead: `${whose} is short, and no mold makes it.`,
      act: 'Add the mold.',
      step: 'mold',
      to: `/orders/${orderId}`,
    },
    'too-large-for-a-glass': {
      lead: `${whose} is short: one shot of it is more than a glass holds.`,
      act: 'Take a larger glass.',
      step: 'settings',
      to: '/settings',
    },
    'too-few-injectors': {
      lead: `${whose} is short: more is pushed at once than there are injectors.`,
      act: 'Say how many there are.',
      step: 'settings',
      to: '/settings',
    },
    'no-material': {
      lead: `${whose} is short, and the store does not hold what goes into it.`,
      act: 'Order it.',
      step: 'store',
      to: '/store',
    },
    'no-time': {
      lead: `${whose} is short, and no evening ahead has hands for it.`,
      act: 'Say who works when.',
      step: 'hours',
      to: '/orders/plan',
    },
  };
  return said[lack];
}
