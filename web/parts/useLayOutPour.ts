import { useNavigate } from 'react-router';
import type { Pour } from '../../contract/pours.ts';
import { useWrite } from '../api/write.ts';
import { useTaste } from './taste.tsx';

interface NeededCup {
  recipeId: string;
  molds: { moldId: string; shots: number }[];
  orderLines?: { orderLineId: string; baits: number }[];
}

/** Lays out a cup as a pour of this maker's and goes to its sheet. */
export function useLayOut() {
  const navigate = useNavigate();
  const { maker } = useTaste();
  return useWrite<Pour, NeededCup>(
    ({ recipeId, molds, orderLines = [] }) => ({
      path: '/pours',
      body: {
        recipeId,
        ...(maker ? { makerId: maker.id } : {}),
        molds: molds.map(({ moldId, shots }) => ({ moldId, shots })),
        orderLines,
      },
    }),
    (pour) => navigate(`/pours/${pour.id}`),
  );
}
