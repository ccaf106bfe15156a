// One step of the check: a command, what it said, how long it took, and how many of its tests passed.
import { spawn } from 'node:child_process';
import { root } from '../ensure-installed.mjs';

/** Counts of a runner's own closing lines; a step without such a line counts as one. */
export const last = (text, pattern) => Number([...text.matchAll(pattern)].at(-1)?.[1] ?? 0);
export const one = (_, isOk) => ({ passed: isOk ? 1 : 0, failed: isOk ? 0 : 1 });
export const runner = (passed, failed) => (text, isOk) => {
  const counts = { passed: last(text, passed), failed: last(text, failed) };
  return isOk || counts.failed > 0 ? counts : { ...counts, failed: 1 };
};

function run([program, ...args], env, heard) {
  return new Promise((resolve) => {
    const child = spawn(program, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1', ...env },
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

export class Steps {
  totals = { passed: 0, failed: 0 };
  /** { name, seconds } of each step, in the order in which they ended. */
  took = [];

  constructor(env = {}) {
    this.env = env;
  }

  /** @param {(text: string) => void} say steps beside others keep what they say until they end, so that two never mix */
  async inOrder(steps, say = (text) => process.stdout.write(text)) {
    for (const { name, command, count } of steps) {
      say(`\n── ${name}\n`);
      const startedMs = Date.now();
      const { text, isOk } = await run(command, this.env, say);
      const { passed, failed } = count(text, isOk);
      this.totals.passed += passed;
      this.totals.failed += failed;
      const seconds = (Date.now() - startedMs) / 1000;
      this.took.push({ name, seconds });
      say(`── ${name}: ${failed === 0 ? 'ok' : 'FAILED'} in ${seconds.toFixed(1)} s\n`);
    }
  }

  async printedAtItsEnd(steps) {
    const said = [];
    await this.inOrder(steps, (text) => said.push(text));
    process.stdout.write(said.join(''));
  }
}
