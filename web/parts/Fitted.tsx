import { type ReactNode, useCallback, useRef, useState } from 'react';
import { flushSync } from 'react-dom';

// Asked for before anything is drawn and when it changes: to ask while a view is drawn lays the page out.
let windowPx = globalThis.innerWidth;
globalThis.addEventListener?.('resize', () => {
  windowPx = globalThis.innerWidth;
});

/**
 * The width that an element has, px; until it is there and measured, what the window has less what stands beside it.
 * @param mostPx no wider than this before it is measured.
 */
export function useWidth(mostPx: number, besidePx = 0) {
  const [width, setWidth] = useState(() => Math.min(mostPx, windowPx - besidePx));
  const guess = useRef(width);
  const measured = useCallback((box: HTMLElement | null) => {
    if (!box) return;
    const watch = new ResizeObserver(([entry]) => {
      const found = Math.floor(entry?.contentRect.width ?? 0);
      if (found === 0) return;
      // Between layout and paint where it has less room: what is cut is never seen. Otherwise when there is time.
      if (found < guess.current) flushSync(() => setWidth(found));
      else setWidth(found);
      guess.current = found;
    });
    watch.observe(box);
    return () => watch.disconnect();
  }, []);
  return [measured, width] as const;
}

/** A drawing to scale, drawn for the room there is, up to the width it is meant for. */
export function Fitted({ mostPx, children }: { mostPx: number; children(widthPx: number): ReactNode }) {
  const [box, width] = useWidth(mostPx);
  return (
    <div ref={box} className="w-full min-w-0" style={{ maxWidth: mostPx }}>
      {children(Math.min(mostPx, width))}
    </div>
  );
}
