import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { oneLine } from '../core/base/control-signs.ts';
import { indexEvidence, streamFacts } from '../core/document/best-known.ts';
import { readSiteFile } from '../core/document/site-file.ts';
import type { Site } from '../core/document/site-types.ts';
import { lanesOf } from '../core/lanes/lane.ts';
import { PowerJudge } from '../core/stations/power/power-judgement.ts';
import { createTapJudge } from '../core/stations/tap/tap-judgement.ts';
import { print, printJson } from './print.ts';
import { UsageError } from './usage-error.ts';

/** Every finding and every budget of a site file. Exit code 1 when a finding says stop. */
export async function checkCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: { json: { type: 'boolean', default: false } },
  });
  const [file, ...rest] = positionals;
  if (file === undefined || rest.length > 0) throw new UsageError('Expected one site file.');
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch {
    throw new UsageError(`${file} could not be read.`);
  }
  const read = readSiteFile(text);
  if (!read.ok) throw new UsageError(read.error.message);
  const site = read.value;
  const index = indexEvidence(site.evidence);
  const judge = createTapJudge(site, index);
  const lanes = lanesOf(site, index).map((lane, at) => ({ camera: site.cameras[at]?.name ?? lane.cameraId, ...lane }));
  const findings = lanes.flatMap(({ camera, findings: list }) => list.map((finding) => ({ camera, ...finding })));
  const power = new PowerJudge(site, (stream) => streamFacts(index, stream));
  const budgets = site.taps.map((tap) => {
    const { verdict, rate, retention } = judge.judge(tap);
    return { tap: tap.id, verdict, rate, retention };
  });
  if (values.json) {
    const stands = lanes.map(({ camera, standsAt, next }) => ({ camera, standsAt, next }));
    printJson({ site: site.name, lanes: stands, findings, budgets, ...powerBudgets(site, power) });
  } else {
    for (const { camera, severity, title, because } of findings)
      print(`${oneLine(camera)}: ${severity}: ${title}. ${oneLine(because)}\n`);
    for (const { camera, next } of lanes)
      print(`${oneLine(camera)}: ${next ? `next: ${oneLine(next)}` : 'nothing left to do'}\n`);
  }
  return findings.some(({ severity }) => severity === 'stop') ? 1 : 0;
}

/** What switches, radios, wires and suns of the site carry, each once. */
function powerBudgets(site: Site, judge: PowerJudge) {
  const switches = site.gear.flatMap((gear) => {
    if (gear.kind !== 'switch' || gear.poePorts === 0) return [];
    const { budget, fed } = judge.budgetOf(gear);
    const { totalW, headroomW, verdict } = budget;
    return [
      {
        switch: gear.name,
        budgetW: gear.budgetW,
        totalW,
        headroomW,
        portsLeft: gear.poePorts - fed.length,
        verdict,
      },
    ];
  });
  const air = site.gear.flatMap((gear) => {
    if (gear.kind !== 'access-point') return [];
    const subject = `gear:${gear.id}`;
    const airtime = judge.links.airtimeOf(subject);
    return [
      {
        accessPoint: gear.name,
        airtime: Number.isFinite(airtime) ? airtime : null,
        verdict: judge.links.airVerdictOf(subject),
      },
    ];
  });
  const links = site.links.map((link) => {
    const { mbps, capacityMbps, unknown, verdict } = judge.links.load(link);
    return {
      link: `${judge.nameAt(link.from)} to ${judge.nameAt(link.to)}`,
      mbps,
      capacityMbps,
      ratesUnknown: unknown,
      verdict,
    };
  });
  const suns = site.cameras.flatMap((camera) => {
    const { sunYear: year } = judge.judge(camera);
    if (!year) return [];
    const { shortMonths, worstMonth, autonomyDays, verdict } = year;
    return [{ camera: camera.name, shortMonths, worstMonth, autonomyDays, verdict }];
  });
  return { switches, air, links, suns };
}
