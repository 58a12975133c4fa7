import { useEffect, useRef } from 'react';

interface Props {
  columns: number;
  rows: number;
  /** Works the picture out; the same function for the same picture. */
  paint(): ImageData;
  label: string;
}

/** A picture worked out point by point, once it has a place on the page, and no larger than that. */
export function Painted({ columns, rows, paint, label }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    context?.putImageData(paint(), 0, 0);
  }, [paint]);
  return (
    <canvas ref={canvas} width={columns} height={rows} role="img" aria-label={label} className="block w-full h-auto" />
  );
}
