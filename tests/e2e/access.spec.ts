import { apart, expect, type Page, test } from './browser.ts';
import { checkAccess, noSidewaysScroll } from './reach.ts';
import { openCamera, probe } from './steps.ts';

const press =
  (name: string, kind: 'button' | 'link' = 'button') =>
  async (page: Page): Promise<void> => {
    await page.getByRole(kind, { name, exact: true }).first().click();
  };
const slip = (page: Page) => expect(page.getByRole('dialog')).toBeVisible();
const openPlace = (path: string, name: string) => async (page: Page) => {
  await page.goto(`/site/alder-mill${path}`);
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
};
const fromMenu = (item: string | RegExp) => async (page: Page) => {
  await page.getByRole('button', { name: /^Site:/ }).click();
  await page.getByRole('menuitem', { name: item }).click();
  await slip(page);
};
const region = (name: string) => (page: Page) => expect(page.getByRole('region', { name })).toBeVisible();

/** Every view, with what is opened on it: each of them is looked at. */
const VIEWS: readonly { readonly name: string; readonly looks: readonly ((page: Page) => Promise<void>)[] }[] = [
  {
    name: 'Round, its finder and its keys',
    looks: [
      openPlace('', 'Round'),
      ...['/', '?'].map((key) => async (page: Page) => {
        await page.keyboard.press(key);
        await slip(page);
      }),
    ],
  },
  { name: 'Tap', looks: [(page) => openCamera(page, 'Boot room')] },
  {
    name: 'Tap, probed, with its exchange',
    looks: [
      async (page) => {
        await openCamera(page, 'Boot room');
        await probe(page);
        await press('Open the exchange')(page);
      },
    ],
  },
  {
    name: 'the sheet',
    looks: [
      async (page) => {
        await openCamera(page, 'Boot room');
        await press('Tap it')(page);
        await page.getByRole('link', { name: /Its sheet/ }).click();
        await region('Sheet')(page);
      },
    ],
  },
  {
    name: 'the logbook, the secrets, a camera list',
    looks: [
      openPlace('/logbook', 'Logbook'),
      async (page) => {
        await press('Secrets: this visit')(page);
        await slip(page);
      },
      async (page) => {
        await page.getByLabel('Camera list').setInputFiles({
          name: 'old.csv',
          mimeType: 'text/csv',
          buffer: Buffer.from('name,ip,path\nWeir,10.77.4.60,/live\nBarn,10.77.4.61,live\n'),
        });
        await expect(page.getByRole('dialog', { name: 'Cameras of old.csv' })).toBeVisible();
      },
    ],
  },
  {
    name: 'a site that is not there',
    looks: [
      async (page) => {
        await page.goto('/site/nowhere');
        await expect(page.getByRole('heading', { name: 'This site cannot be opened' })).toBeVisible();
      },
    ],
  },
  ...['Landing stage', 'Bread oven', 'Bee stand'].map((camera) => ({
    name: `Power of ${camera}`,
    looks: [
      async (page: Page) => {
        await openCamera(page, camera, 'power');
        await region('What feeds it')(page);
      },
    ],
  })),
  {
    name: 'Choose',
    looks: [
      async (page) => {
        await openCamera(page, 'Orchard track', 'choose');
        await region('Candidates')(page);
      },
    ],
  },
  {
    name: 'the slips of Choose',
    looks: [
      async (page) => {
        await openCamera(page, 'Orchard track', 'choose');
        await press('Change')(page);
        await slip(page);
      },
      ...['Its card', 'Add a model'].map((name) => async (page: Page) => {
        await press(name)(page);
        await slip(page);
      }),
    ],
  },
  {
    name: 'Prepare, its bench, the procedure and a rehearsal',
    looks: [
      async (page) => {
        await openCamera(page, 'Bread oven', 'prepare');
        await region('Old handset')(page);
      },
      async (page) => {
        await openCamera(page, 'Boot room', 'prepare/reflash');
        await press('Decide: take a community image')(page);
        await press('A card of 128 GB')(page);
        await region('How its model is reflashed')(page);
      },
      async (page) => {
        await press('Change it')(page);
        await slip(page);
      },
      async (page) => {
        await openCamera(page, 'Boot room', 'prepare/run');
        await press('Begin: write mini_open.bin')(page);
        await region('Step')(page);
      },
      async (page) => {
        await page.goto('/site/alder-mill/camera/boot-room/prepare/rehearsal');
        await region('Simulated camera')(page);
      },
    ],
  },
  { name: 'Plan', looks: [openPlace('/plan', 'Plan')] },
  {
    name: 'Cost and its slip',
    looks: [
      openPlace('/cost', 'Cost'),
      async (page) => {
        await press('Software on the Loft store')(page);
        await slip(page);
      },
    ],
  },
  {
    name: 'Round in parts: filters, several chosen, what is done with them',
    looks: [
      async (page) => {
        await openPlace('', 'Round')(page);
        await press('By station, finding, place, destination')(page);
        await page.getByLabel('Choose Boot room').check();
        await region('Chosen cameras')(page);
      },
    ],
  },
  {
    name: 'what the site’s menu opens: cards, a new card, the site',
    looks: [
      async (page) => {
        await openPlace('', 'Round')(page);
        await fromMenu('Model cards')(page);
      },
      async (page) => {
        await fromMenu('Model cards')(page);
        await press('Write a card')(page);
      },
      fromMenu(/^This site/),
    ],
  },
  {
    name: 'the slips of Tap: a destination, a stream, the camera',
    looks: ['New destination', 'Add a stream', 'Change stream main', 'Change Boot room'].map(
      (name, at) => async (page: Page) => {
        if (at === 0) await openCamera(page, 'Boot room');
        await press(name)(page);
        await slip(page);
      },
    ),
  },
  { name: 'all sheets', looks: [openPlace('/sheets', 'All sheets')] },
  {
    name: 'the first page',
    looks: [
      async (page) => {
        await openPlace('', 'Round')(page);
        await fromMenu(/^This site/)(page);
        await press('Remove this site')(page);
        await press('Remove it all the same')(page);
        await expect(page.getByRole('heading', { name: 'Begin with a site' })).toBeVisible();
      },
    ],
  },
];

for (const { name, looks } of VIEWS)
  test(`reached by anyone, on light and on dark: ${name}`, async ({ page }) => {
    for (const look of looks) {
      await look(page);
      await checkAccess(page);
      if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape');
    }
  });

apart.describe('planning on a phone', () => {
  apart.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  apart('no view of planning scrolls sideways', async ({ page }) => {
    for (const [camera, station, shows] of [
      ['Landing stage', 'power', 'What feeds it'],
      ['Bee stand', 'power', 'What feeds it'],
      ['Orchard track', 'choose', 'Candidates'],
    ] as const) {
      await openCamera(page, camera, station);
      await region(shows)(page);
      await noSidewaysScroll(page);
    }
    for (const [path, name] of [
      ['/plan', 'Plan'],
      ['/cost', 'Cost'],
    ] as const) {
      await openPlace(path, name)(page);
      await noSidewaysScroll(page);
    }
  });
});
