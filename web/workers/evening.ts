import './refusals.ts';
import { expose } from 'comlink';
import { type SessionPlan, simulated } from '../../core/plan/session.ts';

const evening = { simulated: (plan: SessionPlan) => simulated(plan) };

export type EveningWorker = typeof evening;
expose(evening);
