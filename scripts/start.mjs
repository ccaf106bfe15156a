// `npm start`: the application on the real network.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './ensure-built.mjs';
import { root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
await import(pathToFileURL(join(root, 'dist/node/server.mjs')).href);
