import { type ReactNode, useLayoutEffect, useState } from 'react';

/** The width that an element has, px; what it starts from until it is there and measured. */
export function useWidth<E extends HTMLElement>(startPx: number) {
  const [box, setBox] = useState<E | null>(null);
  const [width, setWidth] = useState(startPx);
  useLayoutEffect(() => {
    if (!box) return;
    // Before it is first seen: a frame drawn for a guessed width would be cut.
    if (box.clientWidth > 0) setWidth(box.clientWidth);
    const watch = new ResizeObserver(([entry]) => {
      if (entry && entry.contentRect.width > 0) setWidth(Math.floor(entry.contentRect.width));
    });
    watch.observe(box);
    return () => watch.disconnect();
  }, [box]);
  return [setBox, width] as const;
}

/** A drawing to scale, drawn for the room there is, up to the width it is meant for. */
export function Fitted({ mostPx, children }: { mostPx: number; children(widthPx: number): ReactNode }) {
  const [box, width] = useWidth<HTMLDivElement>(mostPx);
  return (
    <div ref={box} className="w-full min-w-0" style={{ maxWidth: mostPx }}>
      {children(Math.min(mostPx, width))}
    </div>
  );
}
