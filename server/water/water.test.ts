import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Master } from '../../contract/masters.ts';
import type { KickFit, Ladder, WaterTest } from '../../contract/water.ts';
import { STARTS } from '../../core/shape/starts.ts';
import { beam, onset } from '../../core/water/kick.ts';
import { TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let master: Master;
let tests: string;
beforeAll(async () => {
  workshop = await TestWorkshop.open();
  ({ body: master } = await workshop.post<Master>('/masters', {
    name: 'Sandlance 110',
    shape: 'paddle',
    kind: 'print',
    spec: STARTS[0]?.spec,
  }));
  tests = `/masters/${master.id}/revisions/${master.latest.id}/water-tests`;
});
afterAll(() => workshop.close());

const LADDER = {
  scale: '00',
  hardness: 34,
  wristHeightMm: 6,
  wristLengthMm: 12,
  paddleDiameterMm: 14,
  paddleThicknessMm: 4,
  walkingMPerS: 0.6,
};
const fitNow = async () => (await workshop.get<KickFit>('/kick-fit')).body;

describe('water tests', () => {
  const slowAndFast = {
    place: 'tank',
    scale: '00',
    hardness: 34,
    speeds: [
      { pace: 'slow', mPerS: 0.2, kicks: 'no' },
      { pace: 'fast', mPerS: 0.9, kicks: 'yes' },
    ],
    sinkS: 5,
    sinkDepthMm: 400,
  };

  test('one at known speeds is a trial for the fit; one on the water is not; one taken back is none', async () => {
    const { status, body } = await workshop.post<WaterTest>(tests, slowAndFast);
    expect(status).toBe(201);
    expect(body).toMatchObject({ revisionNumber: 1, masterName: 'Sandlance 110', sinkS: 5, sinkDepthMm: 400 });
    await workshop.post(tests, { place: 'lake', placeName: 'north slip', fish: 6, ending: 'torn', rig: 'weedless' });
    expect(await fitNow()).toMatchObject({ fromLadders: 0, fromTests: 1, fit: { n: 1 } });
    await workshop.post('/undo', { rowId: body.id });
    expect(await fitNow()).toMatchObject({ fromTests: 0, fit: null });
    const { body: list } = await workshop.get<Page<WaterTest>>(`/masters/${master.id}/water-tests`);
    expect(list.items.map((one) => one.placeName)).toEqual(['north slip']);
    const twice = await workshop.post('/undo', { rowId: body.id });
    expect([twice.status, twice.body.error.code]).toEqual([409, 'already-reversed']);
  });

  test.each([
    ['a sink time without its depth', { place: 'tank', sinkS: 4 }],
    ['a hardness without its scale', { place: 'tank', hardness: 30 }],
    ['a place that is none', { place: 'sky' }],
    ['a speed of light', { place: 'tank', speeds: [{ pace: 'fast', kicks: 'yes', mPerS: 3e8 }] }],
  ])('%s is refused', async (_what, body) => {
    expect((await workshop.post(tests, body)).status).toBe(400);
  });
});

describe('the tail ladder', () => {
  test('five steps span the walking pace, thinner to thicker', async () => {
    const { body } = await workshop.post<Ladder>('/ladders', { name: 'First', ...LADDER });
    const speeds = body.steps.map(
      (step) =>
        onset(
          beam({
            tail: 'end-paddle',
            scale: '00',
            hardness: 34,
            ...step,
            plastisolDensityGPerMl: 1.02,
            waterDensityGPerMl: 1,
          }),
          0.6,
          0.2,
        ).onsetMPerS / 0.6,
    );
    expect(speeds.map((share) => Math.round(share * 20) / 20)).toEqual([0.5, 0.75, 1, 1.35, 1.9]);
    expect(body.next[0]).toMatchObject({ step: 2, chanceItKicks: 0.5 });
  });

  test('its trials move the constants towards the plastic that was drawn, and say what to draw next', async () => {
    const { body: ladder } = await workshop.post<Ladder>('/ladders', { name: 'Second', ...LADDER });
    // This workshop's plastic, which only the test knows: less water moves along, and it kicks later.
    const truth = (step: number) =>
      onset(
        beam({
          tail: 'end-paddle',
          scale: '00',
          hardness: 34,
          ...(ladder.steps[step] as (typeof ladder.steps)[number]),
          plastisolDensityGPerMl: 1.02,
          waterDensityGPerMl: 1,
        }),
        0.45,
        0.15,
      );
    let now = ladder;
    for (const step of [0, 1, 2, 3]) {
      const { naturalHz, onsetMPerS } = truth(step);
      const trial = { step, hz: naturalHz, kicksAtMPerS: onsetMPerS * 1.05, notAtMPerS: onsetMPerS * 0.95 };
      now = (await workshop.post<Ladder>(`/ladders/${ladder.id}/trials`, trial)).body;
    }
    expect(now.fit?.strouhal).toBeCloseTo(0.15, 2);
    expect(now.fit?.addedMassCoefficient).toBeGreaterThan(0.36);
    expect(now.fit?.addedMassCoefficient).toBeLessThan(0.56);
    expect(now.next.map((one) => one.step)).toEqual([4]);
    const before = now.trials.length;
    await workshop.post('/undo', { rowId: now.trials[0]?.id });
    const back = await workshop.get<Ladder>(`/ladders/${ladder.id}`);
    expect(back.body.trials).toHaveLength(before - 1);
    expect(await fitNow()).toMatchObject({ fromLadders: before - 1 });
  });

  test('its stubs come as one file of five closed bodies', async () => {
    const { body: ladder } = await workshop.post<Ladder>('/ladders', { name: 'Third', ...LADDER });
    const bytes = Buffer.from(await (await fetch(`${workshop.url}/api/ladders/${ladder.id}/file`)).arrayBuffer());
    const measured = await fetch(`${workshop.url}/api/calc/mesh.measure`, {
      method: 'POST',
      body: bytes,
      headers: { 'content-type': 'model/stl' },
    });
    expect(await measured.json()).toMatchObject({ shells: 5, watertight: true, flipped: false });
  });

  test('is called otherwise, put away and taken back with its trials; a second screen’s old name is refused', async () => {
    const { body: made } = await workshop.post<Ladder>('/ladders', { name: 'Fourth', ...LADDER });
    await workshop.post(`/ladders/${made.id}/trials`, { step: 2, hz: 4.4 });
    const rename = (name: string, version: number) =>
      workshop.ask<Ladder>('PATCH', `/ladders/${made.id}`, { name }, { version });
    const { body: renamed } = await rename('Soft 22, spring', made.version);
    expect([renamed.name, renamed.version, renamed.trials.length]).toEqual(['Soft 22, spring', made.version + 1, 1]);
    expect((await rename('Typed on the other tablet', made.version)).status).toBe(409);
    const away = (version: number, out: boolean) =>
      workshop.ask('PATCH', `/away/ladders/${made.id}`, { away: out }, { version });
    await away(renamed.version, true);
    const put = (await workshop.get<Page<Ladder>>('/ladders')).body.items.find((one) => one.id === made.id);
    expect([put?.name, put?.awayAt]).toEqual(['Soft 22, spring', workshop.now.toISOString()]);
    // Its trials still teach: the fit counts them as before.
    expect((await fitNow()).fromLadders).toBeGreaterThan(0);
    await away(put?.version ?? 0, false);
    expect((await workshop.get<Ladder>(`/ladders/${made.id}`)).body).toMatchObject({
      awayAt: null,
      trials: [{ hz: 4.4 }],
    });
    // What was tried on it is never thrown out with it.
    const refused = await workshop.ask('DELETE', `/away/ladders/${made.id}`);
    expect([refused.status, refused.body.error.code]).toEqual([400, 'in-use']);
  });
});
