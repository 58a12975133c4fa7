import { useNavigate } from 'react-router';
import type { BlendWish } from '../../contract/blend.ts';
import type { Pour } from '../../contract/pours.ts';
import { useWrite } from '../api/write.ts';
import { useTaste } from './taste.tsx';

interface NeededCup {
  colourwayId: string;
  molds: { moldId: string; shots: number }[];
  orderLines?: { orderLineId: string; baits: number }[];
  blend?: BlendWish | undefined;
}

/** Lays out a cup as a pour of this maker's and goes to its sheet. */
export function useLayOut() {
  const navigate = useNavigate();
  const { maker } = useTaste();
  return useWrite<Pour, NeededCup>(
    ({ colourwayId, molds, orderLines = [], blend }) => ({
      path: '/pours',
      body: {
        colourwayId,
        ...(maker ? { makerId: maker.id } : {}),
        molds: molds.map(({ moldId, shots }) => ({ moldId, shots })),
        orderLines,
        ...(blend ? { blend } : {}),
      },
    }),
    (pour) => navigate(`/pours/${pour.id}`),
  );
}
