// `npm run check`: types, lint, layers, unit and socket tests, vectors, browser tests. Installs what is missing, goes on
// after a failure so that one run tells everything, and ends with one line: N passed, N failed.
//   --long        every property is tried with all of its examples
//   --since REF   only what has to do with what changed since then; says what it left out
import { spawn } from 'node:child_process';
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { measureMachine, sayMachine } from './check/machine.mjs';
import { partOf } from './check/since.mjs';
import { failuresOfJest, MOST_SECONDS, sayOfTests, testsOfJest, testsOfPlaywright } from './check/slowest.mjs';
import { last, one, runner, Steps } from './check/steps.mjs';
import { ensureBuilt } from './ensure-built.mjs';
import { ensureInstalled, root } from './ensure-installed.mjs';

const { values } = parseArgs({ options: { long: { type: 'boolean', default: false }, since: { type: 'string' } } });
const bin = (name) => join(root, 'node_modules', '.bin', name);
const vectors = readdirSync(join(root, 'tests/vectors'))
  .filter((name) => name.endsWith('.json'))
  .map((name) => join('tests/vectors', name));
const told = join(root, 'node_modules/.cache/check');
const TOLD = {
  unit: join(told, 'unit.json'),
  sockets: join(told, 'sockets.json'),
  again: join(told, 'again.json'),
  browser: join(told, 'browser.json'),
};

const TYPES = {
  name: 'types',
  command: [process.execPath, 'node_modules/typescript7/bin/tsc', '-b'],
  count: one,
};
const lint = (...more) => ({
  name: 'lint',
  command: [bin('biome'), 'check', '--error-on-warnings', '--no-errors-on-unmatched', ...more],
  count: one,
});
const READING = [
  { name: 'layers', command: [bin('depcruise'), 'src', '--config', '.dependency-cruiser.cjs'], count: one },
  { name: 'circles', command: [bin('depcruise'), 'src', '--config', '.dependency-circles.cjs'], count: one },
  { name: 'unused', command: [bin('knip')], count: one },
  {
    name: 'vectors',
    command: [process.execPath, 'scripts/vectors.mjs', ...vectors],
    count: runner(/^(\d+) passed, \d+ failed$/gm, /^\d+ passed, (\d+) failed$/gm),
  },
];
const jest = (kind, args) => ({
  name: kind,
  command: [bin('jest'), '--ci', '--json', '--outputFile', TOLD[kind], ...args],
  count: runner(/^Tests:.*?(\d+) passed/gm, /^Tests:.*?(\d+) failed/gm),
});
const WITHOUT_SOCKETS = ['--testPathIgnorePatterns', '/tests/e2e/', '/tests/integration/'];
const browser = (...args) => ({
  name: 'browser',
  // what fails once is tried once more, in a browser of its own, and told as that
  command: [bin('playwright'), 'test', '--retries', '1', ...args],
  count: (text, isOk) => {
    const { passed, failed } = runner(/^\s+(\d+) passed/gm, /^\s+(\d+) failed/gm)(text, isOk);
    return { passed: passed + last(text, /^\s+(\d+) flaky/gm), failed };
  },
});

const startedMs = Date.now();
const debian = spawn(process.execPath, ['scripts/ensure-installed.mjs'], { cwd: root, stdio: ['ignore', 2, 2] });
const hasDebian = new Promise((resolve) =>
  debian.on('error', () => resolve(false)).on('close', (code) => resolve(code === 0)),
);
ensureInstalled();
rmSync(told, { recursive: true, force: true }); // what a run before was told says nothing of this one
mkdirSync(told, { recursive: true });
const installedMs = Date.now();

const part = values.since === undefined ? null : partOf(values.since);
const machine = await measureMachine();
console.log(sayMachine(machine));
const buildingMs = Date.now();
ensureBuilt('web', 'house', 'node');
const steps = new Steps({ ...(values.long && { CLEAR_TAP_LONG: '1' }), PLAYWRIGHT_JSON_OUTPUT_FILE: TOLD.browser });
steps.took.push({ name: 'build', seconds: (Date.now() - buildingMs) / 1000 });
const kinds = {};
const lacksDebian = async () => {
  if (await hasDebian) return;
  console.error('What lacks is said above.');
  process.exit(1);
};

/** Some hold a time of the clock, which others took from them beside the rest: these are tried once more by themselves, and count then. */
async function tryAlone(kind) {
  const { files, count } = failuresOfJest(TOLD[kind]);
  if (count === 0) return;
  steps.totals.failed -= count;
  const alone = jest('again', [...files, '--runInBand', '--setupFilesAfterEnv', './tests/support/once-more.cjs']);
  const counted = (text, isOk) => {
    const { failed } = alone.count(text, isOk);
    return { passed: Math.max(0, count - failed), failed };
  };
  await steps.inOrder([{ ...alone, name: `${kind}, what failed beside others`, count: counted }]);
}

if (part) {
  await Promise.all([
    steps.printedAtItsEnd([TYPES]),
    steps.printedAtItsEnd([lint(...part.files.filter((name) => !name.endsWith('.md')))]),
  ]);
  await lacksDebian();
  const related = ['--findRelatedTests', ...part.sources, '--passWithNoTests'];
  if (part.sources.length > 0)
    await steps.inOrder([jest('unit', ['--maxWorkers', '2', ...related, ...WITHOUT_SOCKETS])]);
  if (part.sockets.length > 0) await steps.inOrder([jest('sockets', ['--maxWorkers', '3', ...part.sockets])]);
  if (part.specs.length > 0) await steps.inOrder([browser(...part.specs)]);
} else {
  // What mostly waits goes on beside what only reads the code.
  await lacksDebian();
  await Promise.all([
    steps.printedAtItsEnd([TYPES, lint('.'), ...READING]),
    steps.printedAtItsEnd([jest('sockets', ['--maxWorkers', '4', 'tests/integration'])]),
  ]);
  await tryAlone('sockets');
  await steps.inOrder([jest('unit', ['--maxWorkers', '2', ...WITHOUT_SOCKETS])]);
  await tryAlone('unit');
  await steps.inOrder([browser()]);
}
for (const kind of ['unit', 'sockets'])
  if (steps.took.some(({ name }) => name === kind)) kinds[kind] = testsOfJest(TOLD[kind]);
if (steps.took.some(({ name }) => name === 'browser')) kinds.browser = testsOfPlaywright(TOLD.browser);

const after = await measureMachine();
const { text, over } = sayOfTests(kinds, Math.max(machine.slowness, after.slowness));
console.log(`\n${text}\n`);
console.log(steps.took.map(({ name, seconds }) => `${name} ${seconds.toFixed(0)} s`).join(', '));
const seconds = (fromMs, toMs) => ((toMs - fromMs) / 1000).toFixed(0);
console.log(
  `${seconds(installedMs, Date.now())} s in all, and ${seconds(startedMs, installedMs)} s to install. At its end: ${sayMachine(after)}`,
);
const second = (kinds.browser ?? []).filter(({ isSecond }) => isSecond);
if (second.length > 0) console.log('Passed only when it was tried once more:');
for (const { file, name } of second) console.log(`  ${file}  ${name}`);
if (over.length > 0) {
  const limits = Object.entries(MOST_SECONDS).map(([kind, most]) => `${kind} ${most} s`);
  // told, and not counted yet: on some machines that call themselves calm a few are still over it
  console.log(`Longer than a test may take (${limits.join(', ')}):`);
  for (const { kind, file, name, seconds: took } of over)
    console.log(`  ${took.toFixed(1)} s  ${kind}  ${file}  ${name}`);
}
if (part) console.log(`Left out: ${part.leftOut.join('; ')}.`);
console.log(`\n${steps.totals.passed} passed, ${steps.totals.failed} failed`);
process.exitCode = steps.totals.failed === 0 ? 0 : 1;
