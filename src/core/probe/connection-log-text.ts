import { sayMs } from '../base/say.ts';
import type { TapeEntry } from '../rtsp/exchange-types.ts';
import type { ProbeReport } from './probe-types.ts';

const SIGNS: Readonly<Record<TapeEntry['direction'], string>> = { sent: '>', received: '<', remark: '#' };

/** The line that decided a failed probe: the last answer in the first step that failed; `null` where nothing was said. */
export function decidingEntry(
  { steps, cause }: Pick<ProbeReport, 'steps' | 'cause'>,
  tape: readonly TapeEntry[],
): TapeEntry | null {
  if (cause === null) return null;
  const failed = steps.find(({ ok }) => !ok)?.name;
  return tape.filter(({ step, direction }) => step === failed && direction === 'received').at(-1) ?? null;
}

/**
 * A probe as text for whoever made the camera: what was asked, when, and what came. The tape is redacted where it is
 * made; here nothing is added to it.
 * @param at when it was probed, as it is to be read
 */
export function writeTape(report: ProbeReport, tape: readonly TapeEntry[], at: string): string {
  const { target, verdict, cause, server, steps, findings } = report;
  const decides = decidingEntry(report, tape);
  const lines = [
    `Probe of ${target.url}, ${at}`,
    `Verdict: ${verdict}${cause ? ` (${cause})` : ''}${server ? `, server ${server}` : ''}`,
    'Logins are left out of what follows.',
  ];
  for (const { name, status, startMs, durationMs, note, ok } of steps) {
    lines.push(
      '',
      `== ${name}: ${ok ? 'ok' : 'failed'}${status === null ? '' : `, ${status}`}, ${sayMs(durationMs)} from ${sayMs(startMs)}`,
    );
    if (note) lines.push(`# ${note}`);
    for (const entry of tape.filter(({ step }) => step === name)) {
      lines.push(
        `${SIGNS[entry.direction]} at ${sayMs(entry.atMs)}${entry === decides ? ', and this decides it' : ''}`,
      );
      for (const line of entry.text.split(/\r\n|\n/)) lines.push(`${SIGNS[entry.direction]} ${line}`.trimEnd());
    }
  }
  if (findings.length > 0) lines.push('', '== findings');
  for (const { severity, title, because } of findings) lines.push(`${severity}: ${title}. ${because}`);
  return `${lines.join('\n')}\n`;
}
