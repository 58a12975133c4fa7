import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RequestHandler } from 'express';
import type { Page } from '../../contract/fields.ts';
import { FIRST_ANSWERS, type FirstAnswers, firstView } from '../../contract/first.ts';
import type { Today } from '../../contract/today.ts';
import type { Maker } from '../../contract/workshop.ts';
import type { Db } from '../db/open.ts';
import { endpoints } from '../endpoints.ts';
import { read } from '../http/endpoint.ts';
import { sessionOf } from '../session/passcode.ts';
import type { Live } from './live.ts';

interface House {
  db(): Db;
  clock(): Date;
  lan: boolean;
  live: Live;
}

const READS = endpoints
  .filter(({ method }) => method === 'GET')
  .map((endpoint) => ({ endpoint, pattern: new RegExp(`^${endpoint.path.replace(/:(\w+)/g, '(?<$1>[^/]+)')}$`) }));

/** What one address answers; undefined where it cannot: the page asks for it itself then, and says why. */
function answerAt(address: string, db: Db, now: Date): unknown {
  const { pathname, searchParams } = new URL(address, 'http://here');
  for (const { endpoint, pattern } of READS) {
    const found = pattern.exec(pathname);
    if (!found) continue;
    try {
      return read(endpoint, db, now, found.groups ?? {}, Object.fromEntries(searchParams));
    } catch {
      return undefined;
    }
  }
  throw new Error(`A page asks first for ${address}, which nothing answers.`);
}

interface Chunk {
  file: string;
  src?: string;
  imports?: string[];
  isEntry?: boolean;
}

/** Links by which a page asks for the part that draws it at once, not when its first script has found out which one that is. */
function partsOf(pages: string, html: string): Map<string, string> {
  const manifest = join(pages, '.vite', 'manifest.json');
  if (!existsSync(manifest)) return new Map();
  const chunks = JSON.parse(readFileSync(manifest, 'utf8')) as Record<string, Chunk>;
  const under = (name: string, seen: Set<string>): Set<string> => {
    const chunk = chunks[name];
    if (!chunk || chunk.isEntry || seen.has(chunk.file)) return seen;
    seen.add(chunk.file);
    for (const next of chunk.imports ?? []) under(next, seen);
    return seen;
  };
  return new Map(
    Object.keys(chunks)
      .filter((name) => chunks[name]?.src === name)
      .map((name) => [
        name,
        [...under(name, new Set())]
          .filter((file) => !html.includes(file))
          .map((file) => `<link rel="modulepreload" crossorigin href="/${file}">`)
          .join(''),
      ]),
  );
}

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** Today's sentence, drawn where the page keeps a place for it. */
function drawn(html: string, today: Today | undefined): string {
  return html.replace(/<!--[^>]*?sentence (<div.*) sentence -->/s, (_comment, frame: string) =>
    today ? frame.replace(/\{(lead|act)\}/g, (_whole, part: 'lead' | 'act') => escaped(today[part])) : '',
  );
}

/** The page, with what its first view asks for already in it: over slow Wi-Fi nothing is asked for twice before it stands there. */
export function firstPage(pages: string, { db, clock, lan, live }: House): RequestHandler {
  const html = readFileSync(join(pages, 'index.html'), 'utf8');
  const preloads = partsOf(pages, html);
  return (request, response) => {
    const now = clock();
    const session = sessionOf(db(), request.get('cookie'), now, lan);
    const { asked, part } = firstView(request.path);
    // A stranger gets nothing. So does who follows a link from elsewhere, whose browser keeps the cookie back: the page asks itself.
    const answers: FirstAnswers['answers'] = session.known
      ? Object.fromEntries(
          asked.map((address) => [address, address === '/session' ? session : answerAt(address, db(), now)]),
        )
      : {};
    const makers = answers['/makers'] as Page<Maker> | undefined;
    const today = makers?.items.length ? (answers['/today'] as Today | undefined) : undefined;
    const first: FirstAnswers = { now: now.toISOString(), write: live.latest(), answers };
    // No word that somebody typed may end the script.
    const text = JSON.stringify(first).replaceAll('<', '\\u003c');
    const script = `<script type="application/json" id="${FIRST_ANSWERS}">${text}</script>`;
    // The answers are of this moment and of this reader: no browser keeps them.
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(
        drawn(html, today)
          .replace('</head>', () => `${preloads.get(part ?? '') ?? ''}</head>`)
          .replace('</body>', () => `${script}</body>`),
      );
  };
}
