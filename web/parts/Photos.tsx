import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { PhotoAbout } from '../../contract/fields.ts';
import { call } from '../api/client.ts';
import { dateText } from './dates.ts';
import { Refusal } from './Fields.tsx';

export interface Photo {
  id: string;
  createdAt: string;
}

/** The pictures of a record, oldest first. */
export const usePhotos = (aboutType: PhotoAbout, aboutId: string) =>
  useQuery({
    queryKey: ['photos', aboutId],
    queryFn: () => call<{ items: Photo[] }>(`/photos?aboutType=${aboutType}&aboutId=${aboutId}`),
  });

/** The newest picture of a record, on the screen and on paper: what a colour really came out as. */
export function NewestPhoto({ aboutType, aboutId, says }: { aboutType: PhotoAbout; aboutId: string; says: string }) {
  const photo = usePhotos(aboutType, aboutId).data?.items.at(-1);
  if (!photo) return null;
  return (
    <figure className="w-40 shrink-0">
      <img
        src={`/api/photos/${photo.id}/thumb`}
        alt={`${says}, photographed ${dateText(photo.createdAt)}`}
        className="w-full border border-[var(--edge)]"
      />
      <figcaption className="label-small">
        {says}, {dateText(photo.createdAt)}
      </figcaption>
    </figure>
  );
}

/** Pictures kept with a record: the cup, the puck and the bait in daylight look different. */
export function Photos({ aboutType, aboutId }: { aboutType: PhotoAbout; aboutId: string }) {
  const query = `?aboutType=${aboutType}&aboutId=${aboutId}`;
  const client = useQueryClient();
  const [error, setError] = useState<unknown>();
  const { data } = usePhotos(aboutType, aboutId);
  const send = async (file: File) => {
    setError(undefined);
    const response = await fetch(`/api/photos${query}`, {
      method: 'POST',
      headers: { 'content-type': file.type || 'application/octet-stream' },
      body: file,
    }).catch(() => null);
    if (!response?.ok) {
      const answer = (await response?.json().catch(() => null)) as { error?: { message?: string } } | null;
      setError(new Error(answer?.error?.message ?? 'No answer; the picture is still on your device. Try again.'));
    }
    await client.invalidateQueries({ queryKey: ['photos'] });
  };
  return (
    <section className="no-print">
      <h2 className="mb-2">Photos</h2>
      <div className="flex flex-wrap gap-2">
        {(data?.items ?? []).map((photo) => (
          <a key={photo.id} href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
            <img
              src={`/api/photos/${photo.id}/thumb`}
              alt={`Taken ${photo.createdAt.slice(0, 10)}`}
              className="h-24 rounded"
            />
          </a>
        ))}
      </div>
      <label className="link text-sm cursor-pointer">
        Add a photo
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="sr-only"
          onChange={(event) => event.target.files?.[0] && void send(event.target.files[0])}
        />
      </label>
      <Refusal error={error} />
    </section>
  );
}
