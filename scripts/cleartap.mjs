// `npm run -s cleartap -- …`: installs and builds what is missing, then runs the command line in this very process.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './ensure-built.mjs';
import { root } from './ensure-installed.mjs';

ensureBuilt('node');
await import(pathToFileURL(join(root, 'dist/node/cleartap.mjs')).href);
