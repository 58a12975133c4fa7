import { useEffect, useState } from 'react';

/** A text as a square that a camera reads. */
export function Square({ text, says, sizePx = 220 }: { text: string; says: string; sizePx?: number }) {
  const [image, setImage] = useState<{ of: string; url: string }>();
  useEffect(() => {
    let live = true;
    void import('qrcode')
      .then(({ toDataURL }) => toDataURL(text, { margin: 1, width: sizePx }))
      .then((url) => live && setImage({ of: text, url }));
    return () => {
      live = false;
    };
  }, [text, sizePx]);
  return image?.of === text ? (
    <img src={image.url} alt={says} width={sizePx} height={sizePx} data-holds={text} className="max-w-full h-auto" />
  ) : (
    <span className="block" style={{ width: sizePx, height: sizePx }} />
  );
}
