// npm run build: the pages as makers get them, unless nothing they are made of changed.
import { ensureBuilt } from './install.mjs';

ensureBuilt();
