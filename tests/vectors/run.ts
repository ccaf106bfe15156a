// npm run -s vectors -- FILE…   Runs vector files through core; each failure, then "N passed, N failed".
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { difference, type Tolerance } from './compare.ts';
import { OPERATIONS } from './operations.ts';

interface Vector {
  readonly name: string;
  readonly input: { readonly op: string };
  readonly expected: unknown;
  readonly tolerance: Tolerance;
}

/** Topic of a file: its name, or the first topic that knows every operation in it. */
function topicOf(file: string, vectors: readonly Vector[]): string | undefined {
  const named = basename(file).replace(/\..*$/, '');
  const knows = (topic: string) => vectors.every(({ input }) => OPERATIONS[topic] && input.op in OPERATIONS[topic]);
  return OPERATIONS[named] ? named : Object.keys(OPERATIONS).find(knows);
}

function failureOf(topic: string, vector: Vector): string | null {
  const operation = OPERATIONS[topic]?.[vector.input.op];
  if (!operation) return `no operation “${vector.input.op}” in topic “${topic}”`;
  try {
    return difference(vector.expected, operation(vector.input), vector.tolerance);
  } catch (error) {
    return `raised ${error}`;
  }
}

const files = process.argv.slice(2);
if (files.length === 0) {
  console.error('usage: npm run -s vectors -- FILE…');
  process.exit(2);
}
let passed = 0;
let failed = 0;
for (const file of files) {
  const vectors: Vector[] = JSON.parse(readFileSync(file, 'utf8'));
  const topic = topicOf(file, vectors);
  for (const vector of vectors) {
    const failure = topic === undefined ? `no topic has the operations of ${file}` : failureOf(topic, vector);
    if (failure === null) passed += 1;
    else {
      failed += 1;
      console.log(`${basename(file)}: ${vector.name}: ${failure}`);
    }
  }
}
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
