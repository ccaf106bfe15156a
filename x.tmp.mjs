import { chromium } from '@playwright/test';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args:['--no-sandbox'] });
const views = ['', '/camera/boot-room/choose','/camera/bread-oven/power','/camera/linen-stair/prepare','/camera/boot-room/address','/camera/boot-room/tap','/camera/boot-room/hand-over','/plan','/network','/cost','/logbook'];
for (const [tag, opts] of [['l',{viewport:{width:1280,height:800}}],['d',{viewport:{width:1280,height:800},colorScheme:'dark'}],['p',{viewport:{width:390,height:844}}]]) {
  const ctx = await b.newContext(opts);
  const page = await ctx.newPage();
  await page.goto('http://127.0.0.1:4180/'); await page.waitForTimeout(1500);
  const base = page.url();
  for (const [i,v] of views.entries()) {
    await page.goto(base+v); await page.waitForTimeout(700);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    if (wide > 0) console.log(tag, v, 'wider by', wide);
    await page.screenshot({ path: `/tmp/v/${tag}${String(i).padStart(2,'0')}.png` });
  }
  await ctx.close();
}
await b.close();
