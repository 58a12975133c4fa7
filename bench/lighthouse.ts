// How a page is as served, by Lighthouse: the median of five, with its mobile and desktop presets. It is fetched into a folder of its own
// and is no dependency.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { served } from '../e2e/served.ts';

const VERSION = '12.8.2';
const RUNS = 5;
const home = fileURLToPath(new URL('../.bench-data/lighthouse', import.meta.url));

function fetched(): string {
  const cli = join(home, 'node_modules', 'lighthouse', 'cli', 'index.js');
  if (existsSync(cli)) return cli;
  mkdirSync(home, { recursive: true });
  writeFileSync(join(home, 'package.json'), '{"private":true}');
  console.log(`Fetching Lighthouse ${VERSION} …`);
  const { status } = spawnSync('npm', ['install', '--no-save', '--ignore-scripts', `lighthouse@${VERSION}`], {
    cwd: home,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (status !== 0) throw new Error('Lighthouse could not be fetched.');
  return cli;
}

interface Report {
  categories: { performance: { score: number } };
  audits: Record<string, { numericValue: number }>;
}

function measured(cli: string, url: string, preset: 'mobile' | 'desktop', out: string): Report {
  const { status, stderr } = spawnSync(
    process.execPath,
    [
      cli,
      url,
      '--only-categories=performance',
      '--output=json',
      `--output-path=${out}`,
      '--quiet',
      '--chrome-flags=--headless=new --no-sandbox --disable-gpu --disable-background-networking',
      ...(preset === 'desktop' ? ['--preset=desktop'] : []),
    ],
    { encoding: 'utf8', env: { ...process.env, CHROME_PATH: '/usr/bin/chromium' } },
  );
  if (status !== 0) throw new Error(stderr.slice(-600));
  return JSON.parse(readFileSync(out, 'utf8')) as Report;
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] as number;

const cli = fetched();
const data = mkdtempSync(join(tmpdir(), 'blunko-lighthouse-'));
const demo = await served('demo', '--data', data);
try {
  const get = async (path: string) =>
    ((await (await fetch(`${demo.url}/api${path}`)).json()) as { items: { id: string; closedAt?: string | null }[] })
      .items;
  const open = (await get('/pours?limit=20')).find((pour) => pour.closedAt === null)?.id;
  const master = (await get('/masters'))[0]?.id;
  const pages: [string, string, ('mobile' | 'desktop')[]][] = [
    ['Today', '/', ['mobile', 'desktop']],
    ['the bench', `/pours/${open}/bench`, ['mobile', 'desktop']],
    ['the shape bench', `/masters/${master}/shape`, ['desktop']],
  ];
  for (const [name, path, presets] of pages)
    for (const preset of presets) {
      const reports = Array.from({ length: RUNS }, () =>
        measured(cli, demo.url + path, preset, join(data, 'report.json')),
      );
      const of = (audit: string) => median(reports.map((report) => report.audits[audit]?.numericValue ?? 0));
      const score = median(reports.map((report) => report.categories.performance.score * 100));
      console.log(
        `${name}, ${preset}: ${score.toFixed(0)} (largest paint ${(of('largest-contentful-paint') / 1000).toFixed(1)} s, blocked ${of('total-blocking-time').toFixed(0)} ms, shift ${of('cumulative-layout-shift').toFixed(3)})`,
      );
    }
} finally {
  await demo.stop();
  rmSync(data, { recursive: true, force: true });
}
