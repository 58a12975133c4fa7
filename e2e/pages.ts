import { execFileSync } from 'node:child_process';

/** Builds the pages as `npm start` does, or finds them built. */
export default function pages(): void {
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
}
