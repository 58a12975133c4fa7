import { useEffect, useRef } from 'react';

/** A picture worked out point by point, as large as its place and no larger than it was worked out. */
export function Painted({
  image,
  label,
  className = '',
}: {
  image: ImageData | null;
  label: string;
  className?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (image) canvas.current?.getContext('2d')?.putImageData(image, 0, 0);
  }, [image]);
  if (!image) return null;
  return (
    <canvas
      ref={canvas}
      width={image.width}
      height={image.height}
      role="img"
      aria-label={label}
      className={`block w-full h-auto ${className}`}
    />
  );
}
