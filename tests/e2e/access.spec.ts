import { apart, expect, type Page, test } from './browser.ts';
import { checkAccess, checkWords, noSidewaysScroll } from './reach.ts';
import { goTo, openCamera, probe } from './steps.ts';

const press =
  (name: string, kind: 'button' | 'link' = 'button') =>
  async (page: Page): Promise<void> => {
    await page.getByRole(kind, { name, exact: true }).first().click();
  };
const slip = (page: Page) => expect(page.getByRole('dialog')).toBeVisible();
const openPlace = (path: string, name: string | RegExp) => async (page: Page) => {
  await goTo(page, `/site/alder-mill${path}`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
};
const fromMenu = (item: string | RegExp) => async (page: Page) => {
  await page.getByRole('button', { name: /^Site:/ }).click();
  await page.getByRole('menuitem', { name: item }).click();
  await slip(page);
};
const region = (name: string) => (page: Page) => expect(page.getByRole('region', { name })).toBeVisible();

type Look = (page: Page) => Promise<void>;

const showing =
  (camera: string, station: string, shows: string): Look =>
  async (page) => {
    await openCamera(page, camera, station);
    await region(shows)(page);
  };
/** What is opened by a press, and closed again before the next. */
const opened = (...names: readonly string[]): readonly Look[] =>
  names.map((name) => async (page) => {
    await press(name)(page);
    await slip(page);
  });

/** Every view, with what is opened on it: each of them is looked at. They are gone through in the open page, as a person does. */
const VIEWS: Readonly<Record<string, readonly Look[]>> = {
  'Round, its finder and its keys, in parts and chosen, what its menu opens; Plan and Cost': [
    openPlace('', 'Cameras'),
    ...['/', '?'].map((key) => async (page: Page) => {
      await page.keyboard.press(key);
      await slip(page);
    }),
    async (page) => {
      await press('By station, finding, place, destination')(page);
      await page.getByLabel('Choose Boot room').check();
      await region('Chosen cameras')(page);
    },
    fromMenu('Model cards'),
    async (page) => {
      await fromMenu('Model cards')(page);
      await press('Write a model card')(page);
    },
    fromMenu(/^This site/),
    openPlace('/plan', 'Plan'),
    openPlace('/cost', 'Cost'),
    ...opened('Software on the Loft store'),
  ],
  'Tap, probed, with its exchange, and the sheet': [
    async (page) => {
      await openCamera(page, 'Boot room');
      await probe(page);
      await press('Open the exchange')(page);
    },
    async (page) => {
      await press('Tap it')(page);
      await page.getByRole('link', { name: /Its sheet/ }).click();
      await region('Sheet')(page);
    },
    openPlace('/sheets', 'All sheets'),
  ],
  'Tap, not probed yet, and its slips': [
    (page) => openCamera(page, 'Boot room'),
    ...opened('New destination', 'Add a stream', 'Change stream main', 'Change Boot room'),
  ],
  'the logbook, the secrets, a camera list; the first page, and a site that is not there': [
    openPlace('/logbook', 'Logbook'),
    ...opened('Passwords: this visit'),
    async (page) => {
      await page.getByLabel('Camera list').setInputFiles({
        name: 'old.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from('name,ip,path,colour\nWeir,10.77.4.60,/live,red\nBarn,10.77.4.61,live,blue\n'),
      });
      await expect(page.getByRole('dialog', { name: 'Cameras of old.csv' })).toBeVisible();
    },
    async (page) => {
      await fromMenu(/^This site/)(page);
      await press('Remove this site')(page);
      await press('Remove it')(page);
      await expect(page.getByRole('heading', { name: 'Start with a site' })).toBeVisible();
    },
    async (page) => {
      await page.goto('/site/nowhere');
      await expect(page.getByRole('heading', { name: 'This site cannot be opened' })).toBeVisible();
    },
  ],
  'Choose and its slips, Power by cable, sun and battery, Prepare with its bench and a rehearsal': [
    showing('Orchard track', 'choose', 'Candidates'),
    ...opened('Change', 'Its model card', 'Add a model'),
    ...['Landing stage', 'Bread oven', 'Bee stand'].map((camera) => showing(camera, 'power', 'Power source')),
    showing('Bread oven', 'prepare', 'Old phone'),
    async (page) => {
      await openCamera(page, 'Boot room', 'prepare/reflash');
      await press('Decide: install community firmware')(page);
      await press('An SD card of 128 GB')(page);
      await region('Reflash guide of its model')(page);
    },
    ...opened('Edit'),
    async (page) => {
      await openCamera(page, 'Boot room', 'prepare/run');
      await press('Begin: write mini_open.bin')(page);
      await region('Step')(page);
    },
    async (page) => {
      await goTo(page, '/site/alder-mill/camera/boot-room/prepare/rehearsal');
      await region('Simulated camera')(page);
    },
  ],
};

for (const [name, looks] of Object.entries(VIEWS))
  test(`reached by anyone: ${name}`, async ({ page }) => {
    for (const look of looks) {
      await look(page);
      await checkAccess(page);
      await checkWords(page);
      if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape');
    }
  });

apart.describe('on a phone', () => {
  apart.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  apart('no view scrolls sideways', async ({ page }) => {
    for (const [camera, station, shows] of [
      ['Landing stage', 'power', 'Power source'],
      ['Bee stand', 'power', 'Power source'],
      ['Orchard track', 'choose', 'Candidates'],
      ['Boot room', 'prepare', 'Settings at the camera'],
      ['Bread oven', 'prepare', 'Settings at the camera'],
      ['Boot room', 'prepare/reflash', 'Reflash guide of its model'],
      ['Boot room', 'address', 'Findings'],
    ] as const) {
      await openCamera(page, camera, station);
      await region(shows)(page);
      await noSidewaysScroll(page);
    }
    for (const [path, name] of [
      ['/plan', 'Plan'],
      ['/cost', 'Cost'],
      ['/network?view=addresses', /^House/],
      ['/network?view=find', /^House/],
      ['/network?view=reach', /^House/],
      ['/network?view=router', /^House/],
    ] as const) {
      await openPlace(path, name)(page);
      await noSidewaysScroll(page);
    }
  });
});
