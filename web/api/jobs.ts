import { useEffect, useState } from 'react';

/** How far a piece of long work is, 0 to 1, as the server tells it. */
export function useJob(job: string | null): number {
  const [done, setDone] = useState(0);
  useEffect(() => {
    setDone(0);
    if (!job) return;
    const hear = (event: Event) => {
      const { detail } = event as CustomEvent<{ job: string; done: number }>;
      if (detail.job === job) setDone(detail.done);
    };
    window.addEventListener('blunko:job', hear);
    return () => window.removeEventListener('blunko:job', hear);
  }, [job]);
  return done;
}
