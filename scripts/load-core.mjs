/** Has Node load the modules of core itself, their types taken out (load-core-hooks.mjs); for `node --import`. */
import { register } from 'node:module';

process.setSourceMapsEnabled(true);
register('./load-core-hooks.mjs', import.meta.url);
