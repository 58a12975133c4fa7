// Imports go down only. The checker passes green on zero modules, so that is a failure of its own.
import { readdirSync, readFileSync } from 'node:fs';
import { cruise } from 'dependency-cruiser';
import ts from 'typescript';

const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: `^${from}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^(core|contract|server|web|demo|e2e|bench|endure|scripts)/', pathNot: `^(${allowed})/` },
});

const floor = (name, above) => ({
  name: `web-${name}-looks-down`,
  severity: 'error',
  from: { path: `^web/${name}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: `^web/(${above})/` },
});

const forbidden = [
  only('core-stands-alone', 'core', 'core'),
  only('contract-knows-the-core', 'contract', 'core|contract'),
  only('server-looks-down', 'server', 'core|contract|server'),
  only('web-looks-down', 'web', 'core|contract|web'),
  // The web's own floors: what is asked, what is drawn with, the places, the frame around them.
  floor('api', 'parts|places|shell'),
  floor('parts', 'places|shell'),
  floor('workers', 'parts|places|shell'),
  floor('places', 'shell'),
  {
    name: 'a-place-looks-into-no-other',
    severity: 'error',
    from: { path: '^web/places/([^/]+)/', pathNot: '\\.test\\.tsx?$' },
    // What two places draw with is a part. Shapes are judged while they are sculpted: one page, two rooms.
    to: { path: '^web/places/', pathNot: ['^web/places/$1/', '^web/places/judge/'] },
  },
  {
    name: 'only-shapes-are-judged',
    severity: 'error',
    from: { path: '^web/places/', pathNot: '^web/places/(shape|judge)/' },
    to: { path: '^web/places/judge/' },
  },
  {
    name: 'no-cycles',
    severity: 'error',
    from: { path: '^(core|contract|server|web)/' },
    // Circles of types too: who reads one of them has to read all.
    to: { circular: true },
  },
  {
    name: 'core-has-no-node',
    severity: 'error',
    from: { path: '^core/', pathNot: '\\.test\\.ts$' },
    to: { dependencyTypes: ['core'] },
  },
  {
    name: 'core-has-no-interface',
    severity: 'error',
    from: { path: '^core/', pathNot: '\\.test\\.ts$' },
    to: { path: 'node_modules/(react|express|better-sqlite3|chart\\.js|@tanstack)' },
  },
  {
    name: 'no-shared-barrels',
    severity: 'error',
    from: {},
    to: { path: '^(core|contract|server|web)/.*(utils|helpers|common|/index)\\.tsx?$' },
  },
  {
    name: 'not-to-tests',
    severity: 'error',
    from: { pathNot: '\\.(test|spec)\\.tsx?$' },
    to: { path: '\\.(test|spec)\\.tsx?$' },
  },
  { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$|\\?url$' } },
];

const { output } = await cruise(['core', 'contract', 'server', 'web', 'demo', 'e2e', 'bench', 'endure', 'scripts'], {
  ruleSet: { forbidden },
  validate: true,
  doNotFollow: { path: 'node_modules' },
  tsPreCompilationDeps: true,
  enhancedResolveOptions: {
    extensions: ['.ts', '.tsx', '.mjs', '.js'],
    exportsFields: ['exports'],
    conditionNames: ['import', 'require', 'node', 'default', 'types'],
  },
});

const { violations, totalCruised } = output.summary;
for (const { rule, from, to } of violations) console.error(`${rule.name}: ${from} → ${to}`);
if (totalCruised < 80) {
  console.error(`Only ${totalCruised} modules were read; the check saw too little to mean anything.`);
  process.exit(1);
}
/** A component longer than this is several. */
const LONGEST = 120;
function longComponents() {
  const found = [];
  const files = readdirSync(new URL('../web', import.meta.url), { recursive: true })
    .map((name) => `web/${name}`)
    .filter((name) => /\.tsx$/.test(name) && !/\.test\.tsx$/.test(name));
  for (const file of files) {
    const text = readFileSync(new URL(`../${file}`, import.meta.url), 'utf8');
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
    const line = (at) => source.getLineAndCharacterOfPosition(at).line;
    const named = [];
    const walk = (node) => {
      // `memo(function Name …)` is one as well.
      if ((ts.isFunctionDeclaration(node) || ts.isFunctionExpression(node)) && node.name) named.push(node);
      ts.forEachChild(node, walk);
    };
    walk(source);
    for (const one of named) {
      const name = `${file} ${one.name.text}`;
      const long = line(one.end) - line(one.getStart()) + 1;
      if (long > LONGEST) found.push(`${name}: ${long} lines, at most ${LONGEST}`);
    }
  }
  return { read: files.length, found };
}

const { read, found } = longComponents();
for (const one of found) console.error(`component-too-long: ${one}`);
if (read < 50) {
  console.error(`Only ${read} files of components were read; the check saw too little to mean anything.`);
  process.exit(1);
}
console.log(
  `${totalCruised} modules, ${violations.length} violations; ${read} files of components, ${found.length} too long.`,
);
process.exit(violations.length + found.length === 0 ? 0 : 1);
