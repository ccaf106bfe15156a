import { randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { loadGuessEstimator } from '../core/auth/guess-estimator.ts';
import { oneLine } from '../core/base/control-signs.ts';
import { VERDICT_WORDS } from '../core/base/verdict.ts';
import type { Site } from '../core/document/site.ts';
import { applyCommand } from '../core/document/site-commands.ts';
import { SITE_FILE_ENDING, writeSiteFile } from '../core/document/site-file.ts';
import { NO_SECRETS, type SecretsKnown, secretsKnownOf } from '../core/document/site-secrets.ts';
import { gearSubject } from '../core/document/subject.ts';
import { indexEvidence } from '../core/evidence/evidence-index.ts';
import { lanesOf } from '../core/lanes/lane.ts';
import { mendsOf } from '../core/lanes/mends.ts';
import { viewOf } from '../core/site/site-view.ts';
import { networkFindings } from '../core/stations/address/index.ts';
import type { PowerJudge } from '../core/stations/power/index.ts';
import { gearFindings, powerJudgeOf } from '../core/stations/power/index.ts';
import { tapJudgeOf } from '../core/stations/tap/index.ts';
import { print, printJson } from './print.ts';
import { readSecrets, secretOfCamera } from './read-secrets.ts';
import { readSite, readText } from './read-site.ts';
import { InputError, UsageError } from './usage-error.ts';

/** What can be said of the secrets of a file, which are under names of cameras: none of them is printed. */
async function secretsOf(site: Site, file: string): Promise<SecretsKnown> {
  const given = readSecrets(await readText(file), file);
  const byRef = new Map(
    site.cameras.flatMap((camera) => {
      const secret = camera.account && secretOfCamera(given, camera);
      return camera.account && secret !== null ? [[camera.account.secretRef, secret] as const] : [];
    }),
  );
  const estimate = await loadGuessEstimator();
  return secretsKnownOf(site, (ref) => byRef.get(ref) ?? given.get(ref) ?? null, estimate);
}

/** Of one rule at one camera: as many as it may have taps. */
const MOST_MENDS = 20;

/**
 * Every finding and every budget of a site file, each lane's stations with their verdicts, and what would mend a finding.
 * With `--apply RULE` a mended file is written beside it. Exit code 1 when a finding says stop, of the mended site if any.
 */
export async function checkCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      json: { type: 'boolean', default: false },
      apply: { type: 'string' },
      out: { type: 'string' },
      passwords: { type: 'string' },
    },
  });
  const [file, ...rest] = positionals;
  if (file === undefined || rest.length > 0) throw new UsageError('Expected one site file.');
  if (values.out !== undefined && values.apply === undefined)
    throw new UsageError('--out names the file that --apply writes: give both, or neither.');
  const read = await readSite(file);
  const mended = values.apply === undefined ? null : await mendFile(read, values.apply, values.out ?? besides(file));
  const site = mended?.site ?? read;
  const index = indexEvidence(site.journal);
  const secrets = values.passwords === undefined ? NO_SECRETS : await secretsOf(site, values.passwords);
  const view = viewOf(site, index, secrets);
  const lanes = lanesOf(site, index, secrets).map((lane, at) => ({
    camera: site.cameras[at]?.name ?? lane.cameraId,
    ...lane,
  }));
  const findings = lanes.flatMap(({ camera, cameraId, findings: list }) =>
    list.map((finding) => {
      const mends = mendsOf(site, index, cameraId, finding.rule, secrets);
      return { camera, ...finding, mend: mends[0] ?? null, mends };
    }),
  );
  // A switch that cannot feed an access point is told also where no camera is joined to either.
  const said = new Set(findings.map(({ title }) => title));
  const ofGear = gearFindings(site, powerJudgeOf(view))
    .filter(({ finding }) => !said.has(finding.title))
    .map(({ gear, finding }) => ({ gear, ...finding }));
  // A network that is described wrong is told also where no camera is in it.
  const ofNetworks = networkFindings(site.networks)
    .filter(({ finding }) => !said.has(finding.title))
    .map(({ networkId, finding }) => ({
      network: site.networks.find(({ id }) => id === networkId)?.name ?? networkId,
      ...finding,
    }));
  const judge = tapJudgeOf(view);
  const budgets = site.taps.map((tap) => {
    const { verdict, rate, retention } = judge.judge(tap);
    return { tap: tap.id, verdict, rate, retention };
  });
  if (values.json) {
    const stands = lanes.map(({ camera, standsAt, next, stations }) => ({
      camera,
      standsAt,
      next,
      stations: stations.map(({ station, verdict }) => ({ station, verdict })),
    }));
    printJson({
      site: site.name,
      lanes: stands,
      findings,
      gearFindings: ofGear,
      networkFindings: ofNetworks,
      budgets,
      ...powerBudgets(site, powerJudgeOf(view)),
      ...(mended ? { applied: mended.applied, written: mended.written } : {}),
    });
  } else {
    for (const { camera, text } of mended?.applied ?? []) print(`${oneLine(camera)}: mended: ${oneLine(text)}\n`);
    if (mended) print(`written: ${mended.written}\n`);
    for (const { camera, severity, title, because, mends } of findings) {
      print(`${oneLine(camera)}: ${severity}: ${title}. ${oneLine(because)}\n`);
      for (const { text } of mends) print(`  mend: ${oneLine(text)}\n`);
    }
    for (const { gear, severity, title, because } of ofGear)
      print(`${oneLine(gear)}: ${severity}: ${oneLine(title)}. ${oneLine(because)}\n`);
    for (const { network, severity, title, because } of ofNetworks)
      print(`${oneLine(network)}: ${severity}: ${oneLine(title)}. ${oneLine(because)}\n`);
    for (const { camera, stations, next, notKnown } of lanes) {
      const stands = stations.map(({ name, verdict }) => `${name} ${VERDICT_WORDS[verdict]}`).join(', ');
      print(
        `${oneLine(camera)}: ${stands}; ${next ? `next: ${oneLine(next)}` : notKnown ? `not known: ${oneLine(notKnown)}` : 'nothing left to do'}\n`,
      );
    }
  }
  return [...findings, ...ofGear, ...ofNetworks].some(({ severity }) => severity === 'stop') ? 1 : 0;
}

interface Mended {
  readonly site: Site;
  readonly applied: readonly { readonly camera: string; readonly rule: string; readonly text: string }[];
  readonly written: string;
}

/** A name beside the file it was mended from; the file itself is never written over. */
const besides = (file: string): string =>
  `${file.endsWith(SITE_FILE_ENDING) ? file.slice(0, -SITE_FILE_ENDING.length) : file}-mended${SITE_FILE_ENDING}`;

/** Carries out the first mend of each finding of one rule, camera by camera: each is worked out on what the last one left. */
async function mendFile(before: Site, rule: string, out: string): Promise<Mended> {
  let site = before;
  const applied: { camera: string; rule: string; text: string }[] = [];
  const stamp = { at: new Date().toISOString(), newId: () => randomUUID() };
  for (const { id, name } of before.cameras)
    for (let count = 0; count < MOST_MENDS; count++) {
      const [mend] = mendsOf(site, indexEvidence(site.journal), id, rule);
      if (!mend) break;
      site = applyCommand(site, mend.command, stamp);
      applied.push({ camera: name, rule, text: mend.text });
    }
  if (applied.length === 0)
    throw new InputError(`No finding of ${rule} has an automatic remedy in this file; nothing was written.`);
  try {
    await writeFile(out, writeSiteFile(site), { flag: 'wx' });
  } catch (error) {
    const isThere = error instanceof Error && 'code' in error && error.code === 'EEXIST';
    throw new InputError(
      isThere ? `${out} is there already; name another file with --out.` : `${out} could not be written.`,
    );
  }
  return { site, applied, written: out };
}

/** What switches, radios, wires and suns of the site carry, each once. */
function powerBudgets(site: Site, judge: PowerJudge) {
  const switches = site.gear.flatMap((gear) => {
    if (gear.kind !== 'switch' || gear.poePorts === 0) return [];
    const { budget, fed } = judge.budgetOf(gear);
    const { totalW, headroomW, isWhole, verdict } = budget;
    return [
      {
        switch: gear.name,
        budgetW: gear.budgetW,
        totalW,
        isWhole,
        headroomW,
        portsLeft: gear.poePorts - fed.length,
        verdict,
      },
    ];
  });
  const air = site.gear.flatMap((gear) => {
    if (gear.kind !== 'access-point') return [];
    const subject = gearSubject(gear.id);
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
    const { shortMonths, unknownMonths, worstMonth, autonomyDays, verdict } = year;
    return [{ camera: camera.name, shortMonths, unknownMonths, worstMonth, autonomyDays, verdict }];
  });
  return { switches, air, links, suns };
}
