import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RequestHandler } from 'express';
import type { Page } from '../../contract/fields.ts';
import { FIRST_ANSWERS, type FirstAnswers, firstView } from '../../contract/first.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Today } from '../../contract/today.ts';
import type { Clock, Maker, Workshop } from '../../contract/workshop.ts';
import { foamsBy } from '../../core/process/heatNext.ts';
import { cupText, nextOf } from '../../core/process/next.ts';
import { show, showText } from '../../core/units/show.ts';
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
function partsOf(chunks: Record<string, Chunk>, html: string): Map<string, string> {
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

/** The same for a font, by the beginning of its file's name. */
const fontLink = (chunks: Record<string, Chunk>, font: string) => {
  const file = Object.values(chunks).find(
    (chunk) => chunk.file.includes(`/${font}-`) && chunk.file.endsWith('.woff2'),
  )?.file;
  return file ? `<link rel="preload" as="font" type="font/woff2" crossorigin href="/${file}">` : '';
};

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

type Words = Record<string, string>;

/** What a page keeps a place for in a comment, drawn there; without words the comment goes. */
const placed = (html: string, place: string, words: Words | undefined) =>
  html.replace(new RegExp(`<!--[^>]*?\\b${place} (<.*?) ${place} -->`, 's'), (_comment, frame: string) =>
    words ? frame.replace(/\{(\w+)\}/g, (_whole, part: string) => escaped(words[part] ?? '')) : '',
  );

/** The cup's heat and the one next thing, where everybody here would read them in the same units. */
function cupWords(
  pour: Pour,
  { makers, degassing = 'none' }: { makers: Maker[]; degassing?: Workshop['degassing'] | undefined },
  clocks: number,
  now: Date,
): Words | undefined {
  const [taste] = makers;
  const alike = makers.every(
    ({ system, temperature }) => system === taste?.system && temperature === taste.temperature,
  );
  if (!taste || !alike || pour.closedAt) return undefined;
  const cup = { ...pour, nowMs: now.getTime(), foams: foamsBy(pour, degassing) };
  const next = nextOf(cup, (c) => showText(c, 'temperature', taste));
  const last = pour.heats.at(-1);
  return {
    figure: last ? show(last.c, 'temperature', taste).figure : '—',
    unit: show(0, 'temperature', taste).unit,
    name: pour.colourwayName,
    code: pour.code,
    about: cupText(showText(pour.cookMl, 'volume', taste), cup),
    strip: clocks === 0 ? 'h-[34px]' : 'h-[70px]',
    // Nothing stands out while everybody waits; what several cups need next, their own pages know.
    ...(next.do === 'wait' || pour.cups.length > 1 ? {} : { say: next.say, why: next.why }),
  };
}

/** The first sentence of this page, drawn before any script has come. */
function drawn(html: string, answers: FirstAnswers['answers'], now: Date): string {
  const makers = (answers['/makers'] as Page<Maker> | undefined)?.items ?? [];
  const workshop = answers['/workshop'] as Workshop | undefined;
  const clocks = answers['/clocks'] as Page<Clock> | undefined;
  const known = makers.length > 0;
  const today = known ? (answers['/today'] as Today | undefined) : undefined;
  const pour = Object.entries(answers).find(([address]) => address.startsWith('/pours/'))?.[1] as Pour | undefined;
  const cup =
    known && pour
      ? cupWords(pour, { makers, degassing: workshop?.degassing }, clocks?.items.length ?? 0, now)
      : undefined;
  const filled = placed(placed(html, 'cup', cup), 'sentence', today && { lead: today.lead, act: today.act });
  if (!cup) return filled;
  return filled
    .replace(/<p data-frame.*?<\/p>/s, '')
    .replace(/\bnext (<section.*?<\/section>) next\b/s, (_whole, card: string) => (cup.say ? card : ''));
}

/** The page, with what its first view asks for already in it: over slow Wi-Fi nothing is asked for twice before it stands there. */
export function firstPage(pages: string, { db, clock, lan, live }: House): RequestHandler {
  const html = readFileSync(join(pages, 'index.html'), 'utf8');
  const manifest = join(pages, '.vite', 'manifest.json');
  const chunks = existsSync(manifest) ? (JSON.parse(readFileSync(manifest, 'utf8')) as Record<string, Chunk>) : {};
  const parts = partsOf(chunks, html);
  return (request, response) => {
    const now = clock();
    const session = sessionOf(db(), request.get('cookie'), now, lan);
    const { asked, part, fonts = [] } = firstView(request.path);
    // A stranger gets nothing. So does who follows a link from elsewhere, whose browser keeps the cookie back: the page asks itself.
    const answers: FirstAnswers['answers'] = session.known
      ? Object.fromEntries(
          asked.map((address) => [address, address === '/session' ? session : answerAt(address, db(), now)]),
        )
      : {};
    const first: FirstAnswers = { now: now.toISOString(), write: live.latest(), answers };
    // No word that somebody typed may end the script.
    const text = JSON.stringify(first).replaceAll('<', '\\u003c');
    const script = `<script type="application/json" id="${FIRST_ANSWERS}">${text}</script>`;
    // The answers are of this moment and of this reader: no browser keeps them.
    response
      .set('cache-control', 'no-store')
      .type('html')
      .send(
        drawn(html, answers, now)
          .replace(
            '</head>',
            () => `${fonts.map((font) => fontLink(chunks, font)).join('')}${parts.get(part ?? '') ?? ''}</head>`,
          )
          .replace('</body>', () => `${script}</body>`),
      );
  };
}
