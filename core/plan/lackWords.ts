import type { Lack } from './production.ts';

/** Why baits are short: "short by 8: …", "… is short, and …". */
export const LACK_WORDS: Record<Lack, string> = {
  'no-mold': 'no mold makes it',
  'too-large-for-a-glass': 'one shot of it is more than a glass holds',
  'too-few-injectors': 'more is pushed at once than there are injectors',
  'no-material': 'the store does not hold what goes into it',
  'no-time': 'no evening ahead has hands for it',
};
