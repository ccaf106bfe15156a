import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import type { Site } from '../../src/core/document/site.ts';
import type { SiteCommand } from '../../src/core/document/site-commands.ts';
import { alderMill } from '../../src/standins/alder-mill.ts';
import { createJudgeWork } from '../../src/web/store/judge-work.ts';
import { openTab, type Tab, TestBrowser, type TestSchema } from '../support/tabs.ts';

// The store of a page over what a browser keeps, with other pages beside it: what is written, told and never lost.

const MILL = alderMill('2026-11-25T09:00:00.000Z');
const ID = MILL.id;
const [CAMERA] = MILL.cameras;
const STREAM = CAMERA?.streams[0];
const to = (path: string): SiteCommand => ({
  kind: 'setStreamPath',
  cameraId: CAMERA?.id ?? '',
  streamId: STREAM?.id ?? '',
  path,
});
const pathOf = (site: Site | null): string | undefined => site?.cameras[0]?.streams[0]?.path;
const shown = ({ store, selectSite }: Tab) => pathOf(selectSite(store.getState()));
const statusOf = ({ store, selectSave }: Tab) => selectSave(store.getState()).status;
async function written(tab: Tab): Promise<string | undefined> {
  const read = await tab.readStored(ID);
  return read.ok ? pathOf(read.value.site) : read.error.message;
}
const soon = (ms = 0): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
async function until(isSo: () => boolean | Promise<boolean>): Promise<void> {
  for (let at = 0; at < 300 && !(await isSo()); at++) await soon(10);
}
const change = (tab: Tab, path: string): void => void tab.store.dispatch(tab.commandIssued(to(path)));

async function opened(browser: TestBrowser, schema?: TestSchema): Promise<Tab> {
  const tab = await openTab(browser, schema);
  await tab.saveIfAbsent(MILL);
  const loaded = await tab.loadSite(ID);
  if (!loaded.ok) throw new Error(loaded.error.message);
  tab.store.dispatch(tab.siteOpened(loaded.value));
  await soon();
  return tab;
}

test('a change is written soon, and at once when the page is hidden', async () => {
  const tab = await opened(new TestBrowser());
  change(tab, '/a');
  expect(statusOf(tab)).toBe('pending');
  await until(() => statusOf(tab) === 'saved');
  expect(await written(tab)).toBe('/a');
  change(tab, '/b');
  tab.tell('pagehide');
  await soon(50);
  expect(await written(tab)).toBe('/b');
});

test('a tab at rest follows; one that slept through it writes nothing over silently, and a person chooses', async () => {
  const browser = new TestBrowser();
  const [first, second, sleeper] = [await opened(browser), await opened(browser), await opened(browser)];
  sleeper.sleep();
  change(first, '/mine');
  first.tell('pagehide');
  await until(() => shown(second) === '/mine');
  expect(shown(second)).toBe('/mine');

  change(sleeper, '/theirs');
  sleeper.tell('pagehide');
  await until(() => statusOf(sleeper) === 'clash');
  expect(sleeper.bar()).toContain('was also changed in another tab');
  expect(await written(first)).toBe('/mine');
  second.sleep();
  await sleeper.keepOurs();
  expect([statusOf(sleeper), sleeper.bar(), await written(first)]).toEqual(['saved', '', '/theirs']);

  change(second, '/again');
  second.tell('pagehide');
  await until(() => statusOf(second) === 'clash');
  await second.takeOver();
  expect([shown(second), statusOf(second), second.bar()]).toEqual(['/theirs', 'saved', '']);
});

test('the change of a tab that lost and was closed is offered to the next, until it is let go', async () => {
  const browser = new TestBrowser();
  const [winner, loser] = [await opened(browser), await opened(browser)];
  loser.sleep();
  change(winner, '/winner');
  winner.tell('pagehide');
  await soon(50);
  change(loser, '/loser');
  loser.tell('pagehide');
  await until(() => statusOf(loser) === 'clash');
  loser.close();
  change(winner, '/winner/again'); // its writing lets go what it put down itself, and nothing else
  winner.close();
  await soon(50);

  const next = await opened(browser);
  expect(shown(next)).toBe('/loser');
  await until(() => statusOf(next) === 'clash');
  expect(next.bar()).toMatch(/was also changed in another tab.*Use the other tab’s version.*Use this tab’s/);
  await next.takeOver();
  expect(shown(next)).toBe('/winner/again');
  next.close();
  expect(shown(await opened(browser))).toBe('/winner/again');
});

test('a full store: it is said, nothing is lost, and all is kept once there is room', async () => {
  const browser = new TestBrowser();
  const tab = await opened(browser);
  browser.isFull = true;
  change(tab, '/kept');
  await until(() => statusOf(tab) === 'failed');
  expect(tab.bar()).toContain('The browser’s storage is full');
  expect(tab.bar()).toContain('Export this site');
  expect(shown(tab)).toBe('/kept');
  expect(await tab.leaveSite()).toBe(false); // its changes are nowhere else
  tab.noteExported();
  expect(await tab.leaveSite()).toBe(true);
  browser.isFull = false;
  change(tab, '/kept/too');
  await until(() => statusOf(tab) === 'saved');
  expect([tab.bar(), await written(tab)]).toEqual(['', '/kept/too']);
});

test('closed with more than can be put down: the browser asks first, and of what is written nothing is asked', async () => {
  const browser = new TestBrowser();
  const tab = await opened(browser);
  browser.hasNoRoomAtOnce = true;
  change(tab, '/at-once');
  expect(tab.tell('beforeunload')).toBe(true);
  await until(() => statusOf(tab) === 'saved'); // it began to write when it asked
  expect(tab.close()).toBe(false);
  expect(await written(tab)).toBe('/at-once');
});

test('a change that would leave a site that cannot be opened again is taken back at once, in words', async () => {
  const tab = await opened(new TestBrowser(), {
    isThere: true,
    refusalOf: (_, changed) => (pathOf(changed) === '/unfit' ? 'cameras[0] does not fit: made up.' : null),
  });
  change(tab, '/fits');
  change(tab, '/unfit');
  expect(shown(tab)).toBe('/fits');
  expect(tab.bar()).toContain('Not done: the site could not have been opened again. cameras[0] does not fit: made up.');
  change(tab, '/fits/too');
  expect(tab.bar()).toBe('');
  await until(() => statusOf(tab) === 'saved');
  expect(await written(tab)).toBe('/fits/too');
});

test('a document that is refused in spite of all is told before anything is lost, and can be taken back', async () => {
  const schema = {
    isThere: false, // it comes when all is changed already
    refusalOf: (_: Site, changed: Site) => (pathOf(changed) === '/unfit' ? 'made up' : null),
  };
  const browser = new TestBrowser();
  const tab = await opened(browser, schema);
  change(tab, '/fits');
  tab.tell('pagehide');
  await until(() => statusOf(tab) === 'saved');
  change(tab, '/unfit');
  schema.isThere = true;
  tab.tell('pagehide');
  await until(() => statusOf(tab) === 'unfit');
  expect(tab.bar()).toMatch(/could not be opened again, and it is not saved: made up.*Export this site.*Undo/);
  expect([shown(tab), await written(tab)]).toEqual(['/unfit', '/fits']);
  expect(tab.tell('beforeunload')).toBe(true); // what is put down could not be opened either
  tab.store.dispatch(tab.editUndone());
  await until(() => statusOf(tab) === 'saved');
  expect([tab.bar(), shown(tab), await written(tab)]).toEqual(['', '/fits', '/fits']);
});

test('a damaged record is told with its reason, and the last good copy is there', async () => {
  const browser = new TestBrowser();
  const tab = await opened(browser);
  change(tab, '/before');
  await until(() => statusOf(tab) === 'saved');
  expect(await written(tab)).toBe('/before'); // read whole, it is kept as good
  await soon();
  const sites = browser.table('sites');
  const record = (await sites.getItem(`site:${ID}`)) as { site: { cameras: { ports: unknown }[] } };
  if (record.site.cameras[0]) record.site.cameras[0].ports = 'damaged';
  await sites.setItem(`site:${ID}`, record);
  expect(await written(tab)).toContain('cameras[0].ports');
  const good = await tab.loadGoodCopy(ID);
  expect(good.ok && pathOf(good.value.site)).toBe('/before');
});

test('a browser’s store as an earlier build wrote it opens, is worked on, and is kept in the new way', async () => {
  const browser = new TestBrowser();
  const fixture = join(__dirname, '../fixtures/sites/store-v3.json');
  const dump: { stores: Record<string, Record<string, unknown>> }[] = JSON.parse(readFileSync(fixture, 'utf8'));
  for (const { stores } of dump)
    for (const [name, items] of Object.entries(stores))
      for (const [key, value] of Object.entries(items)) await browser.table(name).setItem(key, value);
  const tab = await opened(browser);
  const { journal, taps } = tab.selectSite(tab.store.getState());
  expect(journal.some(({ text }) => text.startsWith('Sluice rail main probed: works'))).toBe(true);
  expect(journal.some(({ text }) => text === 'Sluice rail handed over to Loft store')).toBe(true);
  expect(taps.length).toBeGreaterThan(0);
  // All that was asked for then is done; how an address stays, nobody had been asked.
  const judged = createJudgeWork().act(tab.siteOpened({ site: tab.selectSite(tab.store.getState()), revision: null }));
  expect(judged?.changed.find(({ cameraId }) => cameraId === 'sluice-rail')?.next).toBe(
    'Decide: DHCP reservation or static address',
  );
  change(tab, '/moved');
  await until(() => statusOf(tab) === 'saved');
  expect(shown(await opened(browser))).toBe('/moved');
});
