import { createWriteStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Failure } from '../../core/failure.ts';

/** Brings a request's body to a file; more than the limit is refused while it still comes in. */
export async function saveUpload(stream: NodeJS.ReadableStream, file: string, limitBytes: number): Promise<void> {
  let bytes = 0;
  async function* counted(source: AsyncIterable<Buffer>) {
    for await (const chunk of source) {
      bytes += chunk.length;
      if (bytes > limitBytes) throw new Failure('too-large', `That is more than ${Math.round(limitBytes / 1e6)} MB.`);
      yield chunk;
    }
  }
  await pipeline(stream as Readable, counted, createWriteStream(file, { flush: true }));
}
