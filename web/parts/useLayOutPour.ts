import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import type { BlendWish } from '../../contract/blend.ts';
import type { Pour } from '../../contract/pours.ts';
import { call } from '../api/client.ts';
import { useWrite } from '../api/write.ts';
import { useTaste } from './taste.tsx';

interface NeededCup {
  colourwayId: string;
  molds: { moldId: string; shots: number }[];
  orderLines?: { orderLineId: string; baits: number }[];
  blend?: BlendWish | undefined;
}

const bodyOf = ({ colourwayId, molds, orderLines = [], blend }: NeededCup, makerId: string | undefined) => ({
  colourwayId,
  ...(makerId ? { makerId } : {}),
  molds: molds.map(({ moldId, shots }) => ({ moldId, shots })),
  orderLines,
  ...(blend ? { blend } : {}),
});

/** Lays out the cups of an evening, one after another in their order, and goes to it. A second press goes on where it stopped. */
export function useLayOutAll() {
  const navigate = useNavigate();
  const { maker } = useTaste();
  const keys = useRef(new Map<string, string>());
  return useMutation({
    mutationFn: async (cups: NeededCup[]) => {
      let first: Pour | undefined;
      for (const cup of cups) {
        const content = JSON.stringify(cup);
        const key = keys.current.get(content) ?? v7();
        keys.current.set(content, key);
        const pour = await call<Pour>('/pours', {
          method: 'POST',
          body: bodyOf(cup, maker?.id),
          key,
          awaitStale: true,
        });
        first ??= pour;
      }
      return first;
    },
    onSuccess: (first) => {
      keys.current.clear();
      if (first) navigate(`/pours/${first.id}/evening`);
    },
  });
}

/** Lays out a cup as a pour of this maker's and goes to its sheet. */
export function useLayOut() {
  const navigate = useNavigate();
  const { maker } = useTaste();
  return useWrite<Pour, NeededCup>(
    (cup) => ({ path: '/pours', body: bodyOf(cup, maker?.id) }),
    (pour) => navigate(`/pours/${pour.id}`),
  );
}
