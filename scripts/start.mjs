// npm start: the maker's own workshop, empty at first. Options: --port N --data DIR --lan --passcode X
import { ensureBuilt, ensureInstalled, serve } from './install.mjs';

ensureInstalled();
ensureBuilt();
serve(process.argv.slice(2));
