// `npm run attack`: the attack of tests/attack for an hour, or `-- --minutes N`; not part of the check.
import { spawnSync } from 'node:child_process';
import { ensureBuilt } from './ensure-built.mjs';
import { CHROMIUM, ensureDebian, root } from './ensure-installed.mjs';

ensureBuilt('web', 'node');
ensureDebian(CHROMIUM);
const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'tests/attack/run.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(status ?? 1);
