import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 } from 'uuid';
import type { Material } from '../../../contract/materials.ts';
import type { Heat, Pour, PourMold, Shot } from '../../../contract/pours.ts';
import { UNDO } from '../../../contract/undo.ts';
import { cupWindow } from '../../../core/heat/window.ts';
import { goes } from '../../../core/plan/layers.ts';
import { doseOf } from '../../../core/plastisol/recipe.ts';
import { cupHeat, handsLeftS } from '../../../core/process/cupHeat.ts';
import { shotsOf } from '../../../core/process/cupNow.ts';
import { saysOf, TICKS, type TickId } from '../../../core/process/evidence.ts';
import { nextOf } from '../../../core/process/next.ts';
import type { Graded } from '../../../core/yield/grades.ts';
import type { tap as Tapping } from '../../api/outbox.ts';
import { useOpened } from '../../parts/Guarded.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useBenchRoom } from './benchRoom.ts';
import { cupOf, foldTaps, type Standing } from './cupState.ts';

/** A cavity of a shot that somebody pointed at. */
export interface Pointed {
  shot: Shot;
  mold: PourMold;
  cavity: number;
}

/** Everything that is written at one cup: kept on this device at once, sent when the server is there. */
function cupTaps(pour: Pour, tap: typeof Tapping) {
  const tapRow = (path: string, body: Record<string, unknown>, said: string, about: string) =>
    tap(path, { id: v7(), ...body }, said, about);
  return {
    read: (kind: Heat['kind'], c: number, said: string) =>
      tapRow(`/pours/${pour.id}/heats`, { kind, c }, said, pour.id),
    readBy: (kind: Heat['kind'], c: number, { id, name }: { id: string; name: string }) =>
      tapRow(`/pours/${pour.id}/heats`, { kind, c, instrumentId: id }, name, pour.id),
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
    said: (what: TickId, said: string, of: { moldId?: string; nth?: number; layer?: number; note?: string } = {}) =>
      tapRow(`/pours/${pour.id}/ticks`, { what, said, ...of }, `${TICKS[what].asks}: ${saysOf(what, said)}`, pour.id),
    stirred: () => tapRow(`/pours/${pour.id}/stirs`, {}, 'stirred', pour.id),
    undo: (row: { id: string }) => tapRow(UNDO, { rowId: row.id }, 'undo', pour.id),
  };
}

/** What is written of the molds, at the cup that leads them. */
function moldTaps(lead: Pour, cups: Standing[], tap: typeof Tapping) {
  const tapRow = (path: string, body: Record<string, unknown>, said: string, about: string) =>
    tap(path, { id: v7(), ...body }, said, about);
  const base = `/pours/${lead.id}`;
  const mark = (shot: Shot, marks: Graded[]) =>
    tap(`${base}/shots/${shot.id}/marks`, { marks }, `marks of a shot`, lead.id);
  /** What a go draws of each cup, named by what is in the cup as it is seen here. */
  const partsOf = (go: number) =>
    (goes(lead.layers)[go] ?? []).flatMap((layer) =>
      cups
        .filter(({ pour }) => lead.cups.find((cup) => cup.id === pour.id)?.layers.includes(layer))
        .map(({ pour, folded }) => ({
          layer,
          pourId: pour.id,
          lastDose: folded.doses.at(-1)?.id ?? null,
          lastHeat: folded.heats.at(-1)?.id ?? null,
        })),
    );
  return {
    drawn: (mold: PourMold, go: number, into?: Shot, id?: string) =>
      into
        ? tap(`${base}/shots/${into.id}/parts`, { parts: partsOf(go) }, `layer in ${mold.name}`, lead.id)
        : tapRow(
            `${base}/shots`,
            { ...(id ? { id } : {}), moldId: mold.moldId, parts: partsOf(go) },
            `shot of ${mold.name}`,
            lead.id,
          ),
    mark,
    restGood: (shot: Shot, mold: PourMold) => {
      const known = new Set(shot.marks.filter((row) => row.grade !== 'unmarked').map((row) => row.cavity));
      const rest = Array.from({ length: mold.cavities }, (_, i) => i + 1).filter((cavity) => !known.has(cavity));
      mark(
        shot,
        rest.map((cavity) => ({ cavity, grade: 'sell' })),
      );
    },
    redone: (shot: Shot, mold: PourMold, layer: number, cavity: number) => {
      const from = [...shot.parts].reverse().find((part) => part.layer === layer)?.pourId ?? lead.id;
      tapRow(
        `${base}/shots/${shot.id}/redone`,
        { layer, cavity, pourId: from },
        `layer again in ${mold.name}`,
        lead.id,
      );
    },
  };
}

/** What is about to be drawn. */
interface Drawing {
  mold: PourMold;
  go: number;
  into?: Shot | undefined;
}

/**
 * All that the bench knows and does at the cups of one set, without its looks.
 * @param pours the cups that the same shots are drawn from, the leading one first. @param first which one is in hand.
 */
export function useAtTheCup(pours: [Pour, ...Pour[]], materials: Material[], first?: string) {
  const room = useBenchRoom();
  const taps = room.useTaps();
  const nowMs = room.useNow();
  const navigate = useNavigate();
  const taste = useTaste();
  const [hand, setHand] = useState(first);
  const [pad, setPad] = useState<Heat['kind'] | null>(null);
  const [dosing, setDosing] = useOpened(false);
  const [unread, setUnread] = useState<Drawing | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [lead, ...others] = pours.map((pour): Standing => ({ pour, folded: foldTaps(pour, taps, materials) })) as [
    Standing,
    ...Standing[],
  ];
  const cups = [lead, ...others];
  const cup = cupOf([lead, ...others], nowMs, taste.workshop.degassing);
  const inHand = cups.find((one) => one.pour.id === hand) ?? lead;
  const molds = moldTaps(lead.pour, cups, room.tap);
  const leadTaps = cupTaps(lead.pour, room.tap);
  const next = nextOf(cup, (c) => taste.text(c, 'temperature'));
  const draw = (drawing: Drawing) => {
    const from = goes(lead.pour.layers)[drawing.go] ?? [];
    const blind = cups.find(
      ({ pour, folded }) =>
        folded.heats.length === 0 &&
        lead.pour.cups.find((one) => one.id === pour.id)?.layers.some((layer) => from.includes(layer)),
    );
    if (!blind) molds.drawn(drawing.mold, drawing.go, drawing.into);
    else {
      setHand(blind.pour.id);
      setUnread(drawing);
    }
  };
  /** What a mold takes next: what is begun in it, or a new shot. */
  const drawInto = (mold: PourMold) => {
    const into = cup.shots.find((shot) => shot.moldId === mold.moldId && shot.gone < goes(lead.pour.layers).length);
    draw({ mold, go: into?.gone ?? 0, into });
  };
  const act = () => {
    if ('cup' in next && next.cup) setHand(next.cup);
    if (next.do === 'heat') setPad(next.kind);
    else if (next.do === 'dose') setDosing(true);
    else if (next.do === 'shot') draw(next);
    else if (next.do === 'hold' || next.do === 'top')
      leadTaps.said(next.do === 'hold' ? 'held' : 'topped', 'yes', { moldId: next.mold.moldId, nth: next.nth });
    else if (next.do === 'degas') {
      const to = cups.find((one) => one.pour.id === next.cup) ?? inHand;
      cupTaps(to.pour, room.tap).said('degassed', next.how);
    } else if (next.do === 'look') molds.restGood(next.shot, next.mold);
    else if (next.do === 'close' && room.close) room.close();
    else if (next.do === 'close') navigate(`/pours/${lead.pour.id}?close`);
  };
  const windowOf = (one: Standing) => cupWindow(cup.molds, one.pour.limits);
  const { pour, folded } = inHand;
  // Of what is next, where that is about this cup's heat; else what all molds share.
  const window =
    'window' in next && (next.do !== 'heat' || (next.cup ?? pour.id) === pour.id) ? next.window : windowOf(inHand);
  return {
    /** The cup that leads: its molds are drawn. */
    lead: lead.pour,
    cups,
    /** The cup in hand, and all that is in it. */
    pour,
    folded,
    setHand,
    materials,
    cup,
    next,
    nowMs,
    window,
    /** How the cup in hand goes on cooling; null: nobody read it, or it does not cool. */
    heat: cupHeat(folded.heats, window, lead.pour.evening.roomC ?? taste.workshop.roomC, nowMs),
    /** Hands' time of what is still to be drawn, s. */
    handsS: handsLeftS(
      cup.molds.map((mold) => ({ ...mold, drawn: shotsOf(cup, mold.moldId).length })),
      room.useHands(),
    ),
    lastAct: [...folded.heats, ...cup.shots].reduce<Heat | Shot | undefined>(
      (latest, row) => (latest && latest.at > row.at ? latest : row),
      undefined,
    ),
    write: { ...cupTaps(pour, room.tap), ...molds, ofShot: leadTaps.said },
    draw,
    drawInto,
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
