// `npm run judgement`: writes docs/judgement.md, the table of all rules, from the rules themselves.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './ensure-installed.mjs';

ensureInstalled();
const { status } = spawnSync(join(root, 'node_modules/.bin/jest'), ['tests/judgement'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, WRITE_JUDGEMENT: '1' },
});
process.exit(status ?? 1);
