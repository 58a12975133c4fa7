import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { PhotoAbout } from '../../contract/fields.ts';
import { call } from '../api/client.ts';
import { Refusal } from './Fields.tsx';

interface Photo {
  id: string;
  createdAt: string;
}

/** Pictures kept with a record: the cup, the puck and the bait in daylight look different. */
export function Photos({ aboutType, aboutId }: { aboutType: PhotoAbout; aboutId: string }) {
  const query = `?aboutType=${aboutType}&aboutId=${aboutId}`;
  const client = useQueryClient();
  const [error, setError] = useState<unknown>();
  const { data } = useQuery({
    queryKey: ['photos', aboutId],
    queryFn: () => call<{ items: Photo[] }>(`/photos${query}`),
  });
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
