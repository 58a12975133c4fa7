// A thread does not inherit the TypeScript loader of the program that starts it.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
