import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { v7 } from 'uuid';
import { type CallOptions, call } from './client.ts';

/**
 * A write from a form or button. The same key goes with every try of the same content, so that a second press after a
 * lost answer counts once; what it made stale is fetched again before it is done.
 */
export function useWrite<T, V = void>(
  request: (values: V) => { path: string } & CallOptions,
  done?: (answer: T, values: V) => void,
) {
  const last = useRef<{ content: string; key: string } | null>(null);
  return useMutation({
    mutationFn: (values: V) => {
      const { path, ...options } = request(values);
      const content = JSON.stringify([path, options]);
      if (last.current?.content !== content) last.current = { content, key: v7() };
      return call<T>(path, { method: 'POST', ...options, key: last.current.key, awaitStale: true });
    },
    onSuccess: (answer, values) => {
      last.current = null;
      done?.(answer, values);
    },
  });
}
