import Papa from 'papaparse';
import { apart, expect, type Page, test } from './browser.ts';
import { beginSite, type DemoServer, goTo, openCamera, savedFile, startDemo } from './steps.ts';

/** A power cut moves cameras: what cuts it has a demo of its own. */
const cut = apart.extend<object, { readonly demo: DemoServer }>({
  demo: [
    async ({ browser: _ }, use) => {
      const demo = await startDemo();
      await use(demo);
      demo.process.kill();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ demo }, use) => use(demo.address),
});

const region = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const view = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const row = (page: Page, address: string) =>
  region(page, 'Devices found').getByRole('listitem').filter({ hasText: address });

/** Quicker than the usual pace: it is the simulated network of this computer. */
async function lookThrough(page: Page): Promise<void> {
  await view(page, 'Scan');
  await page.getByLabel('Connections a second').fill('1000');
  await page.getByLabel('Connections a second').blur();
  await region(page, 'Scan it').getByRole('button', { name: 'Scan it' }).click();
  await expect(region(page, 'Devices found')).toContainText(/addresses in \d+\.\d s/, { timeout: 30_000 });
}

cut(
  'from an empty site: the house is described, looked through, bound, reserved; the power fails, and all is found again',
  async ({ page }) => {
    cut.slow();
    await page.goto('/');
    await beginSite(page, 'Mill again');
    await page.getByRole('link', { name: 'Network' }).first().click();
    await page.getByRole('button', { name: 'Add a network' }).click();
    const form = page.getByRole('dialog');
    await form.getByLabel('Name', { exact: true }).fill('House');
    await form.getByLabel('Addresses').fill('fd00::/64');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(form).toContainText('An IPv6 network');
    await form.getByLabel('Addresses').fill('10.77.4.9/24');
    await form.getByLabel('Gateway (router)').fill('10.77.4.1');
    await form.getByLabel('DHCP range from').fill('10.77.4.20');
    await form.getByLabel('to', { exact: true }).fill('10.77.4.99');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('heading', { name: 'House 10.77.4.0/24' })).toBeVisible();

    // Nothing is called before somebody said that one may.
    await view(page, 'Scan');
    await expect(page.getByRole('button', { name: 'Scan it' })).toHaveCount(0);
    await page.getByLabel('Owner, or who asked you').fill('The owner');
    await page.getByRole('button', { name: 'I may scan House' }).click();
    await page.getByLabel('Range').fill('10.0.0.0/8');
    await expect(region(page, 'Scan it')).toContainText('more than a scan takes');
    await expect(page.getByRole('button', { name: 'Scan it' })).toBeDisabled();
    await page.getByLabel('Range').fill('10.77.4.0/24');
    await expect(region(page, 'Scan it')).toContainText(/1.524 connections, at most 125 at once/);
    await lookThrough(page);

    // Each answer becomes a camera by one act: by what it says of itself, or by its MAC address alone.
    for (const address of ['10.77.4.21', '10.77.4.27', '10.77.4.33', '10.77.4.35'])
      await page.getByRole('button', { name: `Make a camera of ${address}` }).click();
    await expect(row(page, '10.77.4.21')).toContainText('Sluice rail, known by its ONVIF identity');
    await expect(row(page, '10.77.4.27')).toContainText('known by its MAC address');
    await expect(row(page, '10.77.4.33')).toContainText('Reports 192.168.0.90 as its own address');

    // Reserved in one list, and entered at the router.
    await view(page, 'Addresses');
    for (const name of ['Sluice rail', 'Bread oven'])
      await page.getByLabel(`Address assignment of ${name}`).selectOption('DHCP reservation');
    await page.getByLabel('Address assignment of Linen stair').selectOption('static on the device');
    await view(page, 'Router');
    await page.getByRole('button', { name: 'Enter the reservations' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'entered' })).toBeVisible();
    await page.getByRole('button', { name: 'Cut the power' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'is back' })).toBeVisible();

    await lookThrough(page);
    // What was reserved by a MAC address that stays, is where it was. What was not, has moved.
    await expect(row(page, '10.77.4.21')).toContainText('at its planned address');
    const moved = region(page, 'Devices found')
      .getByRole('listitem')
      .filter({ hasText: /^10\.77\.4\.\d+00:00:5e:00:53:27/ });
    await expect(moved).toContainText('moved');
    await expect(moved).toContainText('planned at 10.77.4.27');
    // A random MAC address was reserved in vain: it is among those that nobody knows.
    await expect(page.getByRole('region', { name: 'Missing' })).toContainText('Bread oven');
    await page.getByRole('button', { name: 'Take over 1 camera: no tap affected' }).click();
    await expect(moved).toContainText('at its planned address');
    await page.getByRole('button', { name: 'It is Bread oven' }).click();
    await expect(page.getByRole('region', { name: 'Missing' })).toHaveCount(0);

    // All of it stands in the logbook, with who said that one may look.
    await page.getByRole('link', { name: 'Logbook' }).first().click();
    await expect(page.getByText('House: The owner permits scanning')).toBeVisible();
    await expect(page.getByText(/House scanned: \d+ addresses answered/).first()).toBeVisible();
    await expect(page.getByText('1 camera: new address taken over')).toBeVisible();
  },
);

cut(
  'the demo’s house: what moved says which taps are broken, and one act mends them all; undo takes it back',
  async ({ page }) => {
    await openCamera(page, 'Boot room', 'address');
    await expect(region(page, 'Findings')).toContainText('DHCP without a reservation: its address can change');
    await goTo(page, '/site/alder-mill/network');
    await lookThrough(page);
    await view(page, 'Router');
    await page.getByRole('button', { name: 'Cut the power' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'is back' })).toBeVisible();
    await lookThrough(page);
    await page.getByRole('link', { name: 'Boot room' }).first().click();
    await expect(region(page, 'Worst finding')).toContainText('Address changed to 10.77.4.');
    await region(page, 'Worst finding')
      .getByRole('button', { name: /^Use 10\.77\.4\.\d+ everywhere/ })
      .click();
    await expect(region(page, 'Findings')).not.toContainText('Address changed');
    await page.keyboard.press('ControlOrMeta+z');
    await expect(region(page, 'Worst finding')).toContainText('Address changed to 10.77.4.');
  },
);

test('on the demo’s house: a tidy block, reservations out and leases in, and who may reach what', async ({ page }) => {
  await test.step('a tidy block is looked over and taken by one act; a pin is moved by keys, and by a drag', async () => {
    await goTo(page, '/site/alder-mill/network');
    await page.getByRole('button', { name: 'Propose consecutive addresses' }).click();
    const slip = page.getByRole('dialog');
    await expect(slip).toContainText('10.77.4.21 → 10.77.4.100');
    await expect(slip).toContainText('none → 10.77.4.103');
    await slip.getByRole('button', { name: 'Apply' }).click();
    await expect(page.getByLabel('Address of Sluice rail', { exact: true })).toHaveValue('10.77.4.100');
    const pin = page.getByRole('button', { name: /^Sluice rail, 10\.77\.4\.100/ });
    await pin.focus();
    for (let at = 0; at < 3; at++) await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Address of Sluice rail', { exact: true })).toHaveValue('10.77.4.97');
    const box = await page.getByRole('button', { name: /^Sluice rail, 10\.77\.4\.97/ }).boundingBox();
    const ruler = await page.getByRole('group', { name: 'Addresses of House' }).boundingBox();
    if (!box || !ruler) throw new Error('drawn');
    const pitch = (ruler.width - 28) / 64;
    await page.mouse.move(box.x + 6, box.y + box.height - 3);
    await page.mouse.down();
    await page.mouse.move(box.x + 6 - 4 * pitch, box.y + box.height - 3, { steps: 6 });
    await page.mouse.up();
    await expect(page.getByLabel('Address of Sluice rail', { exact: true })).toHaveValue('10.77.4.93');
    for (let at = 0; at < 3; at++) await page.keyboard.press('ControlOrMeta+z');
    await expect(page.getByLabel('Address of Sluice rail', { exact: true })).toHaveValue('10.77.4.21');
  });
  await test.step('reservations go out in each format, and leases come in with what they would change first', async () => {
    await goTo(page, '/site/alder-mill/network?view=router');
    const out = region(page, 'Reservations for the router');
    await expect(out).toContainText('dhcp-host=00:00:5e:00:53:21,10.77.4.21,sluice-rail');
    await out.getByRole('button', { name: 'Kea' }).click();
    const kea = await savedFile(page, () => out.getByRole('button', { name: 'Save Kea' }).click());
    expect(JSON.parse(kea.text).Dhcp4.subnet4[0]).toEqual({
      subnet: '10.77.4.0/24',
      reservations: [{ 'hw-address': '00:00:5e:00:53:21', 'ip-address': '10.77.4.21', hostname: 'sluice-rail' }],
    });
    await out.getByRole('button', { name: 'CSV' }).click();
    const csv = await savedFile(page, () => out.getByRole('button', { name: 'Save CSV' }).click());
    expect(Papa.parse(csv.text, { header: true, skipEmptyLines: true }).data).toEqual([
      { mac: '00:00:5e:00:53:21', ip: '10.77.4.21', hostname: 'sluice-rail', camera: 'Sluice rail' },
    ]);

    const file = page.getByLabel('File of leases or reservations');
    const take = (name: string, buffer: Buffer) => file.setInputFiles({ name, mimeType: 'text/plain', buffer });
    const panel = region(page, 'From the router');
    await take('old.leases', Buffer.from([0xff, 0xfe, 0x00, 0xd8, 0x41]));
    await expect(panel.getByRole('alert')).toContainText('not UTF-8 text');
    await take(
      'mill.conf',
      Buffer.from(
        'domain=mill\ndhcp-host=00-00-5E-00-53-27,10.77.4.41,boot\ndhcp-host=nonsense\ndhcp-host=00:00:5e:00:53:ee,10.77.4.90\n',
      ),
    );
    await expect(panel).toContainText('2 entries, of which 1 of no camera of this site');
    await expect(panel).toContainText('1 line could not be read');
    await expect(panel).toContainText('address 10.77.4.27 → 10.77.4.41, reserved');
    await panel.getByRole('button', { name: 'Import 1 change' }).click();
    await expect(out).toContainText('2 reservations');
    await page.keyboard.press('ControlOrMeta+z');
    await expect(out).toContainText('1 reservation');
  });
  await test.step('who may reach what: a passage that a tap needs is opened from the finding, and a port that leads in is always one', async () => {
    await goTo(page, '/site/alder-mill/network?view=reach');
    await page.getByLabel('Outside port').fill('8554');
    await page.getByLabel('Outside port').blur();
    await page.getByLabel('forwards to').fill('10.77.4.21');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(region(page, 'Port forwards')).toContainText('Sluice rail');
    await page.getByRole('radio', { name: /^Port forward/ }).check();
    await page.getByLabel('WAN address of the router').fill('100.72.4.9');
    await page.getByLabel('WAN address of the router').blur();
    await page.getByLabel('From House to the internet').selectOption('everything');
    await openCamera(page, 'Sluice rail', 'address');
    const findings = region(page, 'Findings');
    await expect(findings).toContainText('Port forward: open to the whole internet');
    await expect(findings).toContainText('Port forward cannot work here');
    await findings.getByRole('button', { name: 'Close port forward 8554 to 554 at the router' }).click();
    await expect(findings).not.toContainText('Port forward: open to the whole internet');
    await findings.getByRole('button', { name: 'Block House from the internet' }).click();
    await expect(findings).not.toContainText('Unrestricted internet access');
  });
});
