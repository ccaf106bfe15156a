// `npm run demo`: installs and builds what is missing, then starts the server with its simulated network.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './ensure-built.mjs';
import { root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
if (!process.argv.includes('--demo')) process.argv.push('--demo');
await import(pathToFileURL(join(root, 'dist/node/server.mjs')).href);
