import { pathsOfChannel } from '../net/path-channel.ts';
import { pathAndQuery, withPath } from '../net/stream-url.ts';
import type { Diagnosis } from '../probe/reasons.ts';
import { again, type FailedProbe, list, type Notebook, sayReport, worked } from './notebook.ts';
import { askOnvif, type Trials } from './trials.ts';

const MOST_PATHS = 6;

/** Nothing is at the path: where is it then? Known paths first, which cost one question each; then the device is asked. */
export function* whichPath(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const tried = new Set([pathAndQuery(of.url), '']);
  const known = yield* firstOf(of.paths, tried, of, notes);
  if (known || of.onvifPort === null) return known ?? notes.open();
  const told = yield* askOnvif(of.onvifPort, of.credentials);
  if (told.isThere)
    notes.note(
      'asked for its paths by ONVIF',
      told.paths.length > 0 ? `it offers ${list(told.paths.slice(0, MOST_PATHS))}` : 'it offers none',
    );
  const own = pathsOfChannel(told.paths, pathAndQuery(of.url), null);
  const others = told.paths.filter((path) => !own.includes(path));
  if (others.length > 0)
    notes.note(`did not try ${list(others.slice(0, MOST_PATHS))}`, 'another channel, or not known which');
  return (yield* firstOf(own, tried, of, notes)) ?? notes.open();
}

/** The first of these paths at which a stream is. */
function* firstOf(
  paths: readonly string[],
  tried: Set<string>,
  of: FailedProbe,
  notes: Notebook,
): Trials<Diagnosis | null> {
  for (const path of paths) {
    if (tried.has(path) || tried.size > MOST_PATHS + 2) continue;
    tried.add(path);
    const report = yield* again(of, { url: withPath(of.url, path) });
    notes.note(`asked for ${path}`, worked(report) ? 'a stream is there' : sayReport(report));
    if (worked(report)) return notes.conclude('path-elsewhere', { path });
    if (report.cause === 'auth-failed' || report.cause === 'forbidden') return notes.open(); // no further login is spent
  }
  return null;
}
