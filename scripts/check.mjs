// `npm run check`: types, lint, layers, unit and socket tests, vectors, browser tests. Installs what is missing, goes on
// after a failure so that one run tells everything, and ends with one line: N passed, N failed.
import { spawn } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './ensure-built.mjs';
import { ensureInstalled, root } from './ensure-installed.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const vectors = readdirSync(join(root, 'tests/vectors'))
  .filter((name) => name.endsWith('.json'))
  .map((name) => join('tests/vectors', name));

/** Counts of a runner's own closing lines; a step without such a line counts as one. */
const last = (text, pattern) => Number([...text.matchAll(pattern)].at(-1)?.[1] ?? 0);
const one = (_, isOk) => ({ passed: isOk ? 1 : 0, failed: isOk ? 0 : 1 });
const runner = (passed, failed) => (text, isOk) => {
  const counts = { passed: last(text, passed), failed: last(text, failed) };
  return isOk || counts.failed > 0 ? counts : { ...counts, failed: 1 };
};

const TYPES = [{ name: 'types', command: [process.execPath, 'node_modules/typescript7/bin/tsc', '-b'], count: one }];
/** What else only reads the code; one after the other beside the types, which take as long as all of them. */
const READING = [
  { name: 'lint', command: [bin('biome'), 'check', '--error-on-warnings', '.'], count: one },
  { name: 'layers', command: [bin('depcruise'), 'src', '--config', '.dependency-cruiser.cjs'], count: one },
  { name: 'circles', command: [bin('depcruise'), 'src', '--config', '.dependency-circles.cjs'], count: one },
  { name: 'unused', command: [bin('knip')], count: one },
  {
    name: 'vectors',
    command: [process.execPath, 'scripts/vectors.mjs', ...vectors],
    count: runner(/^(\d+) passed, \d+ failed$/gm, /^\d+ passed, (\d+) failed$/gm),
  },
];

const jest = (name, args) => ({
  name,
  command: [bin('jest'), '--ci', ...args],
  count: runner(/^Tests:.*?(\d+) passed/gm, /^Tests:.*?(\d+) failed/gm),
});
/** One after the other: what reckons, what mostly waits for packets and so goes on several at once, and what a browser does. */
const RUNNING = [
  jest('unit', ['--maxWorkers', '2', '--testPathIgnorePatterns', '/tests/e2e/', '/tests/integration/']),
  jest('sockets', ['--maxWorkers', '3', 'tests/integration']),
  {
    name: 'browser, timed',
    command: [bin('playwright'), 'test', '--project', 'timed'],
    count: runner(/^\s+(\d+) passed/gm, /^\s+(\d+) failed/gm),
  },
  {
    name: 'browser, calm',
    command: [bin('playwright'), 'test', '--project', 'calm', '--workers', '2'],
    count: runner(/^\s+(\d+) passed/gm, /^\s+(\d+) failed/gm),
  },
];

function run([program, ...args], heard) {
  return new Promise((resolve) => {
    const child = spawn(program, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1' },
    });
    let text = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => {
        text += chunk;
        heard(chunk);
      });
    child.on('error', (error) => resolve({ text: String(error), isOk: false }));
    child.on('close', (code) => resolve({ text, isOk: code === 0 }));
  });
}

const debian = spawn(process.execPath, ['scripts/ensure-installed.mjs'], { cwd: root, stdio: ['ignore', 2, 2] });
const hasDebian = new Promise((resolve) =>
  debian.on('error', () => resolve(false)).on('close', (code) => resolve(code === 0)),
);
ensureInstalled();
ensureBuilt('web', 'house', 'node');

const totals = { passed: 0, failed: 0 };
/** @param {(text: string) => void} say steps beside others keep what they say until they end, so that two never mix */
async function inOrder(steps, say) {
  for (const { name, command, count } of steps) {
    say(`\n── ${name}\n`);
    const startedMs = Date.now();
    const { text, isOk } = await run(command, say);
    const { passed, failed } = count(text, isOk);
    totals.passed += passed;
    totals.failed += failed;
    const seconds = ((Date.now() - startedMs) / 1000).toFixed(1);
    say(`── ${name}: ${failed === 0 ? 'ok' : 'FAILED'} in ${seconds} s\n`);
  }
}
const print = (text) => process.stdout.write(text);
async function printedAtItsEnd(steps) {
  const said = [];
  await inOrder(steps, (text) => said.push(text));
  print(said.join(''));
}

await Promise.all([TYPES, READING].map(printedAtItsEnd));
if (!(await hasDebian)) process.exit(1); // what lacks is said above
await inOrder(RUNNING, print);
print(`\n${totals.passed} passed, ${totals.failed} failed\n`);
process.exitCode = totals.failed === 0 ? 0 : 1;
