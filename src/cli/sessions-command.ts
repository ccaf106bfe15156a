import { parseArgs } from 'node:util';
import { oneLine } from '../core/base/control-signs.ts';
import type { Finding } from '../core/findings/finding.ts';
import { readTarget } from '../core/net/target.ts';
import { findingsOfSessions } from '../core/sessions/sessions-rules.ts';
import { MOST_SESSIONS, type SessionsReport, USUAL_SESSIONS } from '../core/sessions/sessions-types.ts';
import { runSessions } from '../server/works/run-sessions.ts';
import { cancelOnSignal } from './cancel-on-signal.ts';
import { linesOf, print, printJson } from './print.ts';
import { createWorld, readPositive, readTransport } from './read-options.ts';
import { readSecret } from './read-secret.ts';
import { tellRefusedLogins } from './tell-refused-logins.ts';
import { UsageError } from './usage-error.ts';

/** Counts how many sessions play at once, and closes all of them. Exit code 0 when it was counted, 1 when not, 2 wrong usage. */
export async function sessionsCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      user: { type: 'string' },
      'pass-env': { type: 'string' },
      'pass-stdin': { type: 'boolean', default: false },
      most: { type: 'string', default: String(USUAL_SESSIONS) },
      tunnel: { type: 'boolean', default: false },
      transport: { type: 'string', default: 'auto' },
      timeout: { type: 'string', default: '5' },
      'allow-public': { type: 'boolean', default: false },
      json: { type: 'boolean', default: false },
    },
  });
  const [target, ...rest] = positionals;
  if (target === undefined || rest.length > 0) throw new UsageError('Expected one URL.');
  const most = readPositive('most', values.most, MOST_SESSIONS);
  if (!Number.isInteger(most)) throw new UsageError(`--most: expected a whole number, got “${values.most}”.`);
  const transport = readTransport(values.transport);
  const timeoutMs = readPositive('timeout', values.timeout, 600) * 1000;
  const secret = await readSecret(values['pass-env'], values['pass-stdin']);
  const read = readTarget(target, values.user ?? null, secret, values.tunnel);
  if (!read.ok) throw new UsageError(read.error.note);
  const run = { ...read.value, transport, timeoutMs, most };
  const world = createWorld(values['allow-public']);
  const report = await runSessions(run, world, cancelOnSignal());
  const findings = findingsOfSessions(report);
  if (values.json) printJson({ ...report, findings });
  else print(describe(report, findings));
  tellRefusedLogins(world);
  return report.opened > 0 ? 0 : 1;
}

/** The count for eyes. */
function describe({ limit, opened, most, refusedWith, closed }: SessionsReport, findings: readonly Finding[]): string {
  const reached = limit === null ? `none of ${most} was refused` : `${limit} at once`;
  const lines = [opened === 0 ? 'no session' : reached, `  ${opened} played, ${closed} answered TEARDOWN\n`];
  if (refusedWith)
    lines.push(
      `  then: ${[refusedWith.status, refusedWith.cause, oneLine(refusedWith.note)].filter(Boolean).join(', ')}`,
    );
  lines.push(...linesOf(findings));
  return `${lines.join('\n')}\n`;
}
