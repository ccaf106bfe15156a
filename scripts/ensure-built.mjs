// Builds what is older than its sources: the page and the programs under dist/. Speaks on standard error only.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root } from './ensure-installed.mjs';

const CONFIG = [
  'package-lock.json',
  'vite.config.ts',
  'vite.house.config.ts',
  'vite.node.config.ts',
  'tsconfig.base.json',
];
const TARGETS = {
  web: { config: 'vite.config.ts', sources: ['src/web', 'src/contract', 'src/core'] },
  house: { config: 'vite.house.config.ts', sources: ['src/web', 'src/contract', 'src/core', 'tests/fixtures'] },
  node: {
    config: 'vite.node.config.ts',
    sources: ['src/cli', 'src/server', 'src/standins', 'src/contract', 'src/core'],
  },
  bench: {
    config: 'vite.bench.config.ts',
    sources: ['tests/bench', 'tests/support', 'src/server', 'src/standins', 'src/contract', 'src/core'],
  },
};

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  let latest = stat.mtimeMs; // a removed file changes its folder
  for (const entry of readdirSync(path))
    if (!/\.test\.tsx?$/.test(entry)) latest = Math.max(latest, newest(join(path, entry)));
  return latest;
}

function builtAt(name) {
  try {
    return statSync(join(root, 'dist', `.${name}-stamp`)).mtimeMs;
  } catch {
    return 0;
  }
}

/** @param {...('web' | 'house' | 'node' | 'bench')} names */
export function ensureBuilt(...names) {
  ensureInstalled();
  for (const name of names) {
    const { config, sources } = TARGETS[name];
    const startedAt = Date.now();
    if (Math.max(...[...CONFIG, ...sources].map((path) => newest(join(root, path)))) < builtAt(name)) continue;
    console.error(`Building ${name} …`);
    const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
    const { status } = spawnSync(process.execPath, [vite, 'build', '--config', config, '--logLevel', 'warn'], {
      cwd: root,
      stdio: ['ignore', 2, 2],
      env: { ...process.env, NODE_ENV: 'production' }, // whoever asks: a test run too ships what is tested
    });
    if (status !== 0) process.exit(status ?? 1);
    mkdirSync(join(root, 'dist'), { recursive: true });
    writeFileSync(join(root, 'dist', `.${name}-stamp`), new Date(startedAt).toISOString());
  }
}
