import { expect, test } from '@jest/globals';
import { camera, mill, probed, record, report, stamps } from '../../../tests/support/sites.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { type EditHistory, NO_EDITS, noteEdit, redoEdit, undoEdit } from './edit-history.ts';
import type { Site } from './site.ts';
import { applyCommand, type SiteCommand } from './site-commands.ts';
import { readSiteFile, writeSiteFile } from './site-file.ts';

interface Desk {
  site: Site;
  history: EditHistory;
}
const start = (): Desk => ({ site: mill(), history: NO_EDITS });
let count = 0;
const stamp = () => {
  count += 1;
  return stamps(`2026-11-25T09:00:00.${String(count).padStart(3, '0')}Z`);
};
function act(desk: Desk, ...commands: readonly SiteCommand[]): Desk {
  let { site, history } = desk;
  for (const command of commands) {
    const after = applyCommand(site, command, stamp());
    history = noteEdit(history, command, site, after);
    site = after;
  }
  return { site, history };
}
const plan = ({ journal: _, ...rest }: Site): unknown => rest;
/** What counts, by what and where: how often it was told does not matter. */
const known = ({ journal }: Site): unknown =>
  [...indexEvidence(journal)].flatMap(([subject, { facts }]) =>
    [...facts].map(([quantity, items]) => [subject, quantity, items.at(-1)?.value]),
  );

const move: SiteCommand = { kind: 'setAddress', cameraId: 'sluice', host: '10.77.4.99', port: 8554 };
const path: SiteCommand = { kind: 'setStreamPath', cameraId: 'boots', streamId: 'boots-main', path: '/other' };
const tap = record('tap-1', 'sluice');
const handOver: SiteCommand = { kind: 'recordHandOver', tapId: 'tap-1', url: 'rtsp://x/', by: 'hand', refs: [] };
const every: readonly SiteCommand[] = [
  move,
  path,
  tap,
  handOver,
  { kind: 'setAccount', cameraId: 'sluice', account: null },
  { kind: 'removeTap', tapId: 'tap-1' },
  { kind: 'addCamera', camera: camera('oven') },
];

test('every edit can be taken back and done again, and each state on the way is a sound site', () => {
  const begun = start();
  let desk = act(begun, ...every);
  const end = desk.site;
  const states = [plan(end)];
  for (let i = 0; i < every.length; i++) {
    desk = undoEdit(desk.site, desk.history, stamp());
    expect(readSiteFile(writeSiteFile(desk.site)).ok).toBe(true);
    states.push(plan(desk.site));
  }
  expect(plan(desk.site)).toEqual(plan(begun.site));
  expect(known(desk.site)).toEqual(known(begun.site));
  for (let i = 1; i <= every.length; i++) {
    desk = redoEdit(desk.site, desk.history, stamp());
    expect(plan(desk.site)).toEqual(states[every.length - i]);
  }
  expect(known(desk.site)).toEqual(known(end));
});

test('what was measured stays when an edit before it is taken back, and the log tells both', () => {
  const { site, history } = act(start(), move, probed('sluice', report({ kbps: 900 })), path);
  const once = undoEdit(site, history, stamp());
  const twice = undoEdit(once.site, once.history, stamp());
  expect(twice.site.cameras[0]?.host).not.toBe('10.77.4.99');
  expect(known(twice.site)).toEqual(known(site));
  expect(twice.site.journal.slice(0, site.journal.length)).toEqual(site.journal);
  expect(twice.site.journal.slice(-2).map(({ text }) => text)).toEqual([
    expect.stringMatching(/^Undone: .*path of main changed$/),
    expect.stringMatching(/^Undone: .*address changed$/),
  ]);
});

test('a new edit ends what could be done again', () => {
  const first = act(start(), move);
  const back = undoEdit(first.site, first.history, stamp());
  const on = act(back, path);
  expect(on.history.undone).toEqual([]);
  expect(redoEdit(on.site, on.history, stamp()).site).toBe(on.site);
});

test('with nothing to take back nothing changes', () => {
  const { site, history } = start();
  expect(undoEdit(site, history, stamp())).toEqual({ site, history });
});

test('notes and probes are no edits; the history has an end', () => {
  const note: SiteCommand = { kind: 'note', text: 'x', subject: 'site', logKind: 'site' };
  expect(act(start(), note, probed('sluice', report())).history).toEqual(NO_EDITS);
  const many = act(start(), ...Array.from({ length: 230 }, (_, i) => ({ ...move, port: i + 1 }) as SiteCommand));
  expect(many.history.done).toHaveLength(200);
});
