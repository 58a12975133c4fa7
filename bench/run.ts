// npm run bench [-- colour|history|decade|lighthouse|mesh|mold|page|plan]: prints medians and ratios; judges nothing.
const PARTS = {
  colour: './colour.ts',
  history: './history.ts',
  decade: './decade/run.ts',
  lighthouse: './lighthouse.ts',
  mesh: './mesh.ts',
  mold: './mold.ts',
  page: './page.ts',
  plan: './plan.ts',
} as const;
const asked = process.argv.slice(2);
for (const name of asked) {
  if (!(name in PARTS)) {
    console.error(`There is no benchmark called ${name}; there are ${Object.keys(PARTS).join(', ')}.`);
    process.exit(2);
  }
}
for (const [name, file] of Object.entries(PARTS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  console.log(`\n── ${name}`);
  await import(file);
}

export {};
