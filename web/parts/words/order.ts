import type { OrderRow } from '../../../contract/orders.ts';
import type { PriceList } from '../../../core/plan/prices.ts';

export const STATE_WORDS: Record<OrderRow['state'], string> = {
  short: 'short',
  'in-pour': 'in a pour',
  curing: 'curing',
  good: 'good, pack it',
  asked: 'colour not chosen',
  ready: 'packed',
  sent: 'sent',
  cancelled: 'cancelled',
};

export const stateColour = (state: OrderRow['state']) =>
  state === 'short'
    ? 'var(--heat)'
    : state === 'curing' || state === 'in-pour' || state === 'asked'
      ? 'var(--warn)'
      : state === 'sent' || state === 'cancelled'
        ? 'var(--soft)'
        : 'var(--rest)';

export const LIST_WORDS: Record<PriceList, string> = {
  private: 'private: the price',
  club: 'a club',
  shop: 'a shop',
};
