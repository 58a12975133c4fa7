import { approveBody, proposalsBody, tasteBody, tastePatch } from '../../contract/tastes.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { getOrder } from '../orders/store.ts';
import { addTaste, approve, openTaste, propose, tastesOf } from './store.ts';

const touches = ['orders', 'today', 'line'];

export const tasteEndpoints = [
  endpoint({
    method: 'GET',
    path: '/orders/:id/tastes',
    run: ({ db, params }) => {
      mustFind(db, 'customer_order', params.id as string, 'order');
      return { items: tastesOf(db, params.id as string), nextCursor: null };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/tastes',
    body: tasteBody,
    touches,
    run: ({ db, body, params, at }) => {
      addTaste(db, params.id as string, body, at);
      return { items: tastesOf(db, params.id as string), nextCursor: null };
    },
  }),
  endpoint({
    method: 'PUT',
    path: '/tastes/:id/proposals',
    body: proposalsBody,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      propose(db, params.id as string, version, body.proposals);
      return { items: tastesOf(db, openTaste(db, params.id as string).orderId), nextCursor: null };
    },
  }),
  endpoint({
    method: 'PUT',
    path: '/tastes/:id/approved',
    body: approveBody,
    versioned: true,
    touches: [...touches, 'recipes', 'colourways', 'rack'],
    run: ({ db, body, params, version, at }) => {
      const { orderId } = openTaste(db, params.id as string);
      approve(db, params.id as string, version, body, at);
      return getOrder(db, orderId, at);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/tastes/:id',
    body: tastePatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version, at }) => {
      const { orderId } = openTaste(db, params.id as string);
      update(db, 'taste_wish', params.id as string, version, { awayAt: body.away ? at : null }, 'wish');
      return { items: tastesOf(db, orderId), nextCursor: null };
    },
  }),
];
