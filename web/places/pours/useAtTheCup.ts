import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Material } from '../../../contract/materials.ts';
import type { Heat, Pour, PourMold, Shot } from '../../../contract/pours.ts';
import { UNDO } from '../../../contract/undo.ts';
import { cupWindow } from '../../../core/heat/window.ts';
import { doseOf } from '../../../core/plastisol/recipe.ts';
import { nextOf } from '../../../core/process/next.ts';
import type { Graded } from '../../../core/yield/grades.ts';
import { useNow } from '../../api/now.ts';
import { tap, tapRow, useTaps } from '../../api/outbox.ts';
import { useTaste } from '../../parts/taste.tsx';
import { cupOf, foldTaps } from './cupState.ts';

/** A cavity of a shot that somebody pointed at. */
export interface Pointed {
  shot: Shot;
  mold: PourMold;
  cavity: number;
}

/** Everything that is written at the cup: kept on this device at once, sent when the server is there. */
function useCupTaps(pour: Pour) {
  const base = `/pours/${pour.id}`;
  const mark = (shot: Shot, marks: Graded[]) =>
    tap(`${base}/shots/${shot.id}/marks`, { marks }, `marks of a shot`, pour.id);
  return {
    drawn: (mold: PourMold) => tapRow(`${base}/shots`, { moldId: mold.moldId }, `shot of ${mold.name}`, pour.id),
    mark,
    restGood: (shot: Shot, mold: PourMold) => {
      const known = new Set(shot.marks.filter((row) => row.grade !== 'unmarked').map((row) => row.cavity));
      const rest = Array.from({ length: mold.cavities }, (_, i) => i + 1).filter((cavity) => !known.has(cavity));
      mark(
        shot,
        rest.map((cavity) => ({ cavity, grade: 'sell' })),
      );
    },
    read: (kind: Heat['kind'], c: number, said: string) => tapRow(`${base}/heats`, { kind, c }, said, pour.id),
    doseAsWritten: () => {
      for (const item of pour.plan.items) {
        tapRow(
          `/ledgers/${pour.ledgerId}/doses`,
          { materialId: item.materialId, ...doseOf(item) },
          `${item.materialName} as written`,
          pour.id,
        );
      }
    },
    undo: (row: Heat | Shot) => tapRow(UNDO, { rowId: row.id }, 'undo', pour.id),
  };
}

/** All that the bench knows and does at one cup, without its looks. */
export function useAtTheCup(pour: Pour, materials: Material[]) {
  const taps = useTaps();
  const nowMs = useNow();
  const navigate = useNavigate();
  const taste = useTaste();
  const write = useCupTaps(pour);
  const [pad, setPad] = useState<Heat['kind'] | null>(null);
  const [dosing, setDosing] = useState(false);
  const [unread, setUnread] = useState<PourMold | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const cup = cupOf(pour, nowMs, foldTaps(pour, taps, materials));
  const next = nextOf(cup, (c) => taste.text(c, 'temperature'));
  const draw = (mold: PourMold) => (cup.heats.length === 0 ? setUnread(mold) : write.drawn(mold));
  const act = () => {
    if (next.do === 'heat') setPad(next.kind);
    else if (next.do === 'dose') setDosing(true);
    else if (next.do === 'shot') draw(next.mold);
    else if (next.do === 'look') write.restGood(next.shot, next.mold);
    else if (next.do === 'close') navigate(`/pours/${pour.id}?close`);
  };
  return {
    pour,
    materials,
    cup,
    next,
    nowMs,
    // Of what is next, where that is about the heat; while all wait, what all molds share.
    window: 'window' in next ? next.window : cupWindow(cup.molds, cup.limits),
    lastAct: [...cup.heats, ...cup.shots].reduce<Heat | Shot | undefined>(
      (latest, row) => (latest && latest.at > row.at ? latest : row),
      undefined,
    ),
    write,
    draw,
    act,
    pad,
    setPad,
    dosing,
    setDosing,
    unread,
    setUnread,
    pointed,
    setPointed,
  };
}

export type AtTheCup = ReturnType<typeof useAtTheCup>;
