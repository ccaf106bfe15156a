// What the runners say of each test, and which of them took too long.
import { readFileSync } from 'node:fs';
import { relative } from 'node:path';
import { root } from '../ensure-installed.mjs';

/** The longest that a test of a kind may take, s: what is longer is split, or asks for less. */
export const MOST_SECONDS = { unit: 2, sockets: 8, browser: 15 };
const SHOWN = 10;

const read = (path) => {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return null; // the runner ended before it could tell; that it failed is counted by its step
  }
};

/** Tests of a file that Jest wrote with --json: { file, name, seconds }. */
export const testsOfJest = (path) =>
  (read(path)?.testResults ?? []).flatMap(({ name: file, assertionResults }) =>
    assertionResults.map(({ fullName, duration }) => ({
      file: relative(root, file),
      name: fullName,
      seconds: (duration ?? 0) / 1000,
    })),
  );

/** Files in which a test failed, and how many tests did. */
export function failuresOfJest(path) {
  const results = read(path)?.testResults ?? [];
  const failing = results.filter(({ status }) => status === 'failed');
  const tests = failing.flatMap(({ assertionResults }) => assertionResults.filter(({ status }) => status === 'failed'));
  return { files: failing.map(({ name }) => relative(root, name)), count: tests.length };
}

/** Tests of a file that Playwright’s json reporter wrote; `isSecond` marks those that passed when they were tried once more. */
export function testsOfPlaywright(path) {
  const found = [];
  const walk = ({ suites = [], specs = [] }) => {
    suites.forEach(walk);
    for (const { file, title, tests } of specs)
      for (const { results } of tests)
        found.push({
          file: `tests/e2e/${file}`,
          name: title,
          seconds: (results.at(-1)?.duration ?? 0) / 1000,
          isSecond: results.length > 1 && results.at(-1).status === 'passed',
        });
  };
  walk(read(path) ?? {});
  return found;
}

const say = ({ file, name, seconds }) => `  ${seconds.toFixed(1).padStart(5)} s  ${file}  ${name.slice(0, 90)}`;

/**
 * The slowest of each kind, and those over the limit of their kind.
 * @param slowness of the machine: it is not the test's
 */
export function sayOfTests(kinds, slowness) {
  const lines = [];
  const over = [];
  for (const [kind, tests] of Object.entries(kinds)) {
    const slowest = [...tests].sort((a, b) => b.seconds - a.seconds);
    lines.push(`── the slowest of ${tests.length} tests: ${kind}`, ...slowest.slice(0, SHOWN).map(say));
    over.push(
      ...slowest
        .filter(({ seconds }) => seconds > MOST_SECONDS[kind] * Math.max(1, slowness))
        .map((one) => ({ ...one, kind })),
    );
  }
  return { text: lines.join('\n'), over };
}
