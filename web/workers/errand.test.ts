import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { Errand, type Hand, type Manner } from './errand.ts';

/** A worker in the test's hand: it answers, tells or dies when it is told to. */
class FakeHand implements Hand<string, string, number> {
  asked: { wish: string; tell(part: number): void; answer(text: string): void; fail(why: string): void }[] = [];
  ended = false;
  die: (why: string) => void = () => undefined;
  ask(wish: string, tell: (part: number) => void): Promise<string> {
    return new Promise((answer, fail) => {
      this.asked.push({ wish, tell, answer, fail: (why) => fail(new Error(why)) });
    });
  }
  died(hear: (why: string) => void): void {
    this.die = hear;
  }
  end(): void {
    this.ended = true;
  }
  get last() {
    return this.asked.at(-1) as FakeHand['asked'][number];
  }
}

let hands: FakeHand[];
let heard: string[];
const hand = (n = hands.length - 1) => hands[n] as FakeHand;
function errand(manner: Manner = { newer: 'waits' }) {
  return new Errand<string, string, number>(
    () => {
      const made = new FakeHand();
      hands.push(made);
      return made;
    },
    {
      begins: (wish) => heard.push(`begins ${wish}`),
      part: (wish, part) => heard.push(`${wish} ${part}`),
      answer: (wish, answer) => heard.push(`${wish} = ${answer}`),
      problem: (wish, why) => heard.push(`${wish}: ${why}`),
    },
    manner,
  );
}
const settle = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
  vi.useFakeTimers();
  hands = [];
  heard = [];
});
afterEach(() => vi.useRealTimers());

describe('an errand whose newer wish waits', () => {
  test('slow: the answer under way is told, the wishes between are skipped, the latest is made', async () => {
    const one = errand();
    for (const wish of ['a', 'b', 'c']) one.wish(wish);
    hand().last.answer('A');
    await settle();
    hand().last.answer('C');
    await settle();
    expect(heard).toEqual(['begins a', 'a = A', 'begins c', 'c = C']);
    expect(hands).toHaveLength(1);
  });

  test('fast: an edit while the first is made, and the fine wish behind it, both come', async () => {
    const one = errand();
    one.wish('draft 1');
    one.wish('draft 2');
    hand().last.answer('1');
    await settle();
    one.wish('fine 2');
    hand().last.answer('2');
    await settle();
    hand().last.answer('F');
    await settle();
    expect(heard.filter((line) => line.includes('='))).toEqual(['draft 1 = 1', 'draft 2 = 2', 'fine 2 = F']);
  });

  test('a wish that fails is told and does not hold up the next', async () => {
    const one = errand();
    one.wish('a');
    one.wish('b');
    hand().last.fail('too thin');
    await settle();
    hand().last.answer('B');
    await settle();
    expect(heard).toEqual(['begins a', 'a: too thin', 'begins b', 'b = B']);
  });
});

describe('an errand whose newer wish ends the older', () => {
  test('out of order: what an ended worker still says is not heard', async () => {
    const one = errand({ newer: 'ends' });
    one.wish('a');
    one.wish('b');
    expect(hand(0).ended).toBe(true);
    hand(1).last.tell(0.5);
    hand(1).last.answer('B');
    hand(0).last.tell(0.9);
    hand(0).last.answer('A');
    await settle();
    expect(heard).toEqual(['begins a', 'begins b', 'b 0.5', 'b = B']);
  });

  test('an idle worker is kept for the next wish', async () => {
    const one = errand({ newer: 'ends' });
    one.wish('a');
    hand().last.answer('A');
    await settle();
    one.wish('b');
    expect([hands.length, hand().last.wish]).toEqual([1, 'b']);
  });

  test('stopped: nothing more is told, and the next wish gets a new worker', async () => {
    const one = errand({ newer: 'ends' });
    one.wish('a');
    one.stop();
    hand(0).last.answer('A');
    await settle();
    one.wish('b');
    hand(1).last.answer('B');
    await settle();
    expect(heard).toEqual(['begins a', 'begins b', 'b = B']);
  });
});

describe('a worker that dies', () => {
  test('is started again and asked once more, without beginning twice', async () => {
    const one = errand();
    one.wish('a');
    hand(0).die('out of memory');
    expect([hands.length, hand(0).ended]).toEqual([2, true]);
    hand(1).last.answer('A');
    await settle();
    expect(heard).toEqual(['begins a', 'a = A']);
  });

  test('twice over the same wish is told as a problem; a new wish is tried with a new worker', async () => {
    const one = errand();
    one.wish('a');
    hand(0).die('out of memory');
    hand(1).die('out of memory');
    expect(heard.at(-1)).toMatch(/^a: Its worker stopped twice \(out of memory\)/);
    one.wish('b');
    hand(2).last.answer('B');
    await settle();
    expect(heard.at(-1)).toBe('b = B');
  });

  test('while a newer wish waits is asked for that one', async () => {
    const one = errand();
    one.wish('a');
    one.wish('b');
    hand(0).die('gone');
    expect(hand(1).last.wish).toBe('b');
  });

  test('while idle is replaced at the next wish', async () => {
    const one = errand();
    one.wish('a');
    hand(0).last.answer('A');
    await settle();
    hand(0).die('gone');
    one.wish('b');
    expect([hands.length, hand(1).last.wish]).toEqual([2, 'b']);
  });

  test('silence for too long counts as death; telling how far it is does not', async () => {
    const one = errand({ newer: 'waits', longestMs: 1000 });
    one.wish('a');
    await vi.advanceTimersByTimeAsync(900);
    hand(0).last.tell(0.5);
    await vi.advanceTimersByTimeAsync(900);
    expect(hands).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(200);
    expect(hands).toHaveLength(2);
  });
});

test('after the end nothing is told and nothing is asked: a page that is mounted twice hears one answer', async () => {
  const first = errand();
  first.wish('a');
  first.end();
  const second = errand();
  second.wish('a');
  hand(0).last.answer('from the first');
  hand(1).last.answer('from the second');
  await settle();
  first.wish('b');
  expect(heard.filter((line) => line.includes('='))).toEqual(['a = from the second']);
  expect(hands).toHaveLength(2);
});
