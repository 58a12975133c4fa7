// Imports go down only. The checker passes green on zero modules, so that is a failure of its own.
import { cruise } from 'dependency-cruiser';

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
    name: 'no-cycles',
    severity: 'error',
    from: { path: '^(core|contract|server|web)/' },
    to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
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
console.log(`${totalCruised} modules, ${violations.length} violations.`);
process.exit(violations.length === 0 ? 0 : 1);
