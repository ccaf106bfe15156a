import { describe, expect, test } from '@jest/globals';
import type { Finding } from '../findings/finding.ts';
import { type AnyRule, cellOf, type Facts, findingsOf, judgeRows, verdictOf } from '../findings/rule.ts';
import { judgeChoice } from './choose/choice-verdict.ts';
import type { ChooseFacts } from './choose/choose-facts.ts';
import { CHOOSE_RULES } from './choose/choose-rules.ts';
import { weigh } from './choose/criteria.ts';
import type { PowerFacts } from './power/power-facts.ts';
import { POWER_RULES } from './power/power-rules.ts';

/** A model in a place where nothing speaks against it. */
const SERVES: Facts<ChooseFacts> = {
  model: 'Pellam B4',
  distanceM: 9.5,
  level: 'recognise',
  wantedPxPerM: 125,
  pxPerM: 164,
  charHeightMm: 60,
  textPxPerM: 400,
  depressionDeg: 12,
  steepDeg: 30,
  wantsFaces: true,
  isInView: true,
  zoneFromM: 5,
  seenFromM: 4.2,
  zoneWidthM: 5,
  viewWidthM: 16,
  zoneSeenM: 5,
  faceSeenFromM: 2,
  hfovDeg: 78,
  spanDeg: 78,
  zoneSpanDeg: 30,
  projection: 'pinhole',
  slantM: 9.6,
  isBeyondModel: false,
  gapDeg: 0,
  atNight: true,
  lightKind: 'infrared',
  lightReachM: 12,
  lightRatedM: 24,
  lightAngleDeg: 85,
  localStream: 'both',
  sessions: 4,
  sessionsWanted: 2,
  codecs: ['H264'],
  missedBy: [],
  silentDrawers: [],
  wantsSub: true,
  hasSub: true,
  outdoors: true,
  ingress: 66,
  soundWanted: 'none',
  sound: 'none',
  turnsWanted: false,
  panRangeDeg: 0,
  ways: ['poe'],
  supplyInBox: false,
  lostWithoutAccount: [],
  mountHeightM: 2.8,
};

/** A camera that is fed and joined with room to spare. */
const HOLDS: Facts<PowerFacts> = {
  way: 'poe',
  waysOffered: ['poe'],
  feeder: 'Loft switch',
  feederFeeds: true,
  supplyVolts: 12,
  isRun: true,
  isPoe: true,
  takesW: 9,
  classGivesW: 12.95,
  unfed: [],
  cablesOn: 5,
  switchPorts: 8,
  fullestSwitch: 'Loft switch',
  budgetW: 65,
  reservedW: 45,
  headroomWantedW: 6.5,
  fedBeside: ['Sluice rail'],
  silentBeside: [],
  portsUsed: 3,
  poePorts: 8,
  classAsked: 3,
  isUnderPowered: false,
  cableM: 40,
  cableVolts: 49,
  cableVerdict: 'ok',
  isCopperClad: false,
  isCopperOutside: false,
  passiveVolts: 24,
  minVolts: 10.8,
  maxVolts: 28,
  runM: 10,
  runVerdict: 'ok',
  runNightVolts: 11.6,
  runDayVolts: 11.8,
  runLongestM: 24,
  runPick: '0.33 mm² is the thinnest that holds.',
  supplyAmps: 2,
  supplyLoadA: 0.5,
  latitudeKnown: true,
  shortMonths: [],
  unknownMonths: [],
  worstMonth: 12,
  sunMargin: 1.6,
  panelWp: 20,
  autonomyDays: 4,
  hoursOnConstantDraw: 9,
  hasConstantTap: false,
  isLithium: true,
  isOutdoors: true,
  isOldPhone: true,
  chargeUnlimited: false,
  batteryC: 32,
  cellWarmC: 45,
  cellHotC: 50,
  isSwollen: false,
  accessPoint: 'Hall radio',
  band: '2.4',
  bandsOffered: ['2.4'],
  rssiDbm: -60,
  rssiIsMeasured: true,
  signalOk: -67,
  signalTight: -75,
  signalPath: '8 m and no wall between',
  airtime: 0.3,
  airVerdict: 'ok',
  airtimeOk: 0.4,
  airtimeTight: 0.6,
  airtimeSharers: [],
  wire: 'Loft switch to Loft store',
  wireVerdict: 'ok',
  wireMbps: 30,
  wireCapacityMbps: 100,
  wireOk: 0.5,
  wireTight: 0.75,
  crossesPowerline: false,
  unjoined: [],
};

interface Firing<F> {
  readonly rule: string;
  readonly facts: Facts<F>;
  readonly severity: string;
  readonly says: RegExp;
}

const CHOOSE_FIRES: readonly Firing<ChooseFacts>[] = [
  {
    rule: 'choose.detail',
    facts: { pxPerM: 98 },
    severity: 'stop',
    says: /98 px\/m on the target; recognise needs 125/,
  },
  { rule: 'choose.detail', facts: { pxPerM: 101 }, severity: 'fix', says: /101 px\/m/ },
  { rule: 'choose.text', facts: { textPxPerM: 164 }, severity: 'stop', says: /9\.8 px a character; 12/ },
  { rule: 'choose.text', facts: { textPxPerM: 300 }, severity: 'fix', says: /18\.0 px a character; 20/ },
  { rule: 'choose.target-out-of-view', facts: { isInView: false }, severity: 'stop', says: /9\.5 m/ },
  {
    rule: 'choose.zone-near',
    facts: { seenFromM: 6.1 },
    severity: 'stop',
    says: /Blind up to 6\.1 m.*begins at 5\.0 m/s,
  },
  { rule: 'choose.zone-near', facts: { seenFromM: 6 }, severity: 'fix', says: /First 1\.0 m/ },
  { rule: 'choose.too-steep-for-faces', facts: { depressionDeg: 41 }, severity: 'fix', says: /faces 41° steep/ },
  {
    rule: 'choose.zone-width',
    facts: { viewWidthM: 4.4, zoneSeenM: 4.4 },
    severity: 'stop',
    says: /5\.0 m needed, 4\.4 m of them in the picture/,
  },
  {
    rule: 'choose.zone-width',
    facts: { viewWidthM: 4.5, zoneSeenM: 4.5 },
    severity: 'fix',
    says: /4\.5 m of them in the picture/,
  },
  {
    rule: 'choose.zone-width',
    facts: { viewWidthM: 9, zoneSeenM: 3 },
    severity: 'stop',
    says: /beside the zone.*Turn it/,
  },
  {
    rule: 'choose.face-near',
    facts: { faceSeenFromM: Number.POSITIVE_INFINITY },
    severity: 'stop',
    says: /Faces never visible/,
  },
  { rule: 'choose.face-near', facts: { faceSeenFromM: 5.5 }, severity: 'fix', says: /cut off on the first 0\.5 m/ },
  { rule: 'choose.view-beyond-model', facts: { isBeyondModel: true }, severity: 'fix', says: /No lens is rectilinear/ },
  {
    rule: 'choose.view-beyond-model',
    facts: { isBeyondModel: true, projection: 'equidistant' },
    severity: 'fix',
    says: /Tape two marks/,
  },
  { rule: 'choose.light', facts: { lightKind: 'none' }, severity: 'stop', says: /no illuminator/ },
  {
    rule: 'choose.light',
    facts: { lightReachM: 4, lightRatedM: 8 },
    severity: 'stop',
    says: /8\.0 m rated, about 4\.0 m/,
  },
  {
    rule: 'choose.light',
    facts: { lightReachM: 9, lightRatedM: 18 },
    severity: 'fix',
    says: /18\.0 m rated, about 9\.0 m/,
  },
  {
    rule: 'choose.light-narrower-than-view',
    facts: { lightAngleDeg: 60 },
    severity: 'caution',
    says: /60° wide, its angle of view 78°/,
  },
  {
    rule: 'choose.light-narrower-than-view',
    facts: { lightAngleDeg: 20 },
    severity: 'fix',
    says: /Ends of the zone dark/,
  },
  { rule: 'choose.local-stream', facts: { localStream: 'account-only' }, severity: 'stop', says: /account only/ },
  { rule: 'choose.local-stream', facts: { localStream: 'after-reflash' }, severity: 'fix', says: /reflash/ },
  {
    rule: 'choose.codec-not-taken',
    facts: { codecs: ['H265'], missedBy: [{ name: 'Kitchen tablet', takes: ['H264'] }] },
    severity: 'stop',
    says: /offers H265; Kitchen tablet takes H264/,
  },
  {
    rule: 'choose.codec-not-taken',
    facts: { silentDrawers: ['Mill hub'] },
    severity: 'note',
    says: /what Mill hub takes is not entered/,
  },
  {
    rule: 'choose.gives-other-size',
    facts: { seenSize: '1280 × 720', cardSize: '2880 × 1620', givesFewerPixels: true },
    severity: 'fix',
    says: /Resolution 1280 × 720; its model card says 2880 × 1620/,
  },
  {
    rule: 'choose.gives-other-size',
    facts: { seenSize: '2880 × 1620', cardSize: '1280 × 720', givesFewerPixels: false },
    severity: 'note',
    says: /Correct its model card/,
  },
  {
    rule: 'choose.gives-other-codec',
    facts: { seenCodec: 'H265', cardCodecs: ['H264'] },
    severity: 'caution',
    says: /Codec H265; its model card names H264/,
  },
  { rule: 'choose.sessions', facts: { sessionsWanted: 5 }, severity: 'stop', says: /5 sessions needed, 4 supported/ },
  { rule: 'choose.sessions', facts: { sessionsWanted: 4 }, severity: 'fix', says: /All 4 sessions in use/ },
  { rule: 'choose.no-sub-stream', facts: { hasSub: false }, severity: 'fix', says: /sub stream/ },
  { rule: 'choose.weather', facts: { ingress: 20 }, severity: 'stop', says: /IP20/ },
  { rule: 'choose.weather', facts: { ingress: 54 }, severity: 'fix', says: /IP54: under a roof only/ },
  { rule: 'choose.does-not-turn', facts: { turnsWanted: true }, severity: 'stop', says: /no pan and tilt/ },
  { rule: 'choose.lenses-leave-gap', facts: { gapDeg: 7 }, severity: 'fix', says: /7° between/ },
  { rule: 'choose.no-supply-in-box', facts: { ways: ['dc'] }, severity: 'note', says: /No power supply/ },
  {
    rule: 'choose.account-features-lost',
    facts: { lostWithoutAccount: ['panning'] },
    severity: 'note',
    says: /Lost without the maker’s account: panning/,
  },
  { rule: 'choose.ladder-work', facts: { mountHeightM: 4 }, severity: 'note', says: /4\.0 m/ },
];

/** Fed by the sun, indoors: no word about frost. */
const SUN = { way: 'solar', waysOffered: ['solar'], isOutdoors: false } as const;

const POWER_FIRES: readonly Firing<PowerFacts>[] = [
  { rule: 'power.source-not-offered', facts: { waysOffered: ['dc'] }, severity: 'stop', says: /names dc/ },
  {
    rule: 'power.gear-supplies-nothing',
    facts: { feederFeeds: false },
    severity: 'stop',
    says: /Loft switch does not power it/,
  },
  { rule: 'power.supply-volts-high', facts: { supplyVolts: 48 }, severity: 'stop', says: /supplies 48 V, at most 28/ },
  {
    rule: 'power.supply-volts-low',
    facts: { supplyVolts: 9 },
    severity: 'stop',
    says: /supplies 9 V, more than 10\.8/,
  },
  {
    rule: 'power.switch-budget',
    facts: { reservedW: 75.4 },
    severity: 'stop',
    says: /75\.4 W are reserved, and the budget is 65 W; Sluice rail hangs/,
  },
  { rule: 'power.switch-budget', facts: { reservedW: 60 }, severity: 'fix', says: /5 W of 65 W/ },
  { rule: 'power.no-port-left', facts: { portsUsed: 9 }, severity: 'stop', says: /9 devices/ },
  {
    rule: 'power.class-above-switch',
    facts: { isUnderPowered: true, classAsked: 6 },
    severity: 'stop',
    says: /class 6/,
  },
  {
    rule: 'power.class-contradicts-watts',
    facts: { takesW: 15 },
    severity: 'stop',
    says: /contradicts itself: class 3 and 15 W.*12\.9/,
  },
  { rule: 'power.gear-unfed', facts: { unfed: ['Hall radio on Loft switch'] }, severity: 'stop', says: /Hall radio/ },
  { rule: 'power.cable', facts: { cableVerdict: 'will-not-work', cableM: 180 }, severity: 'stop', says: /180 m/ },
  { rule: 'power.cable', facts: { cableVerdict: 'tight', cableM: 120 }, severity: 'fix', says: /too long: 120 m/ },
  { rule: 'power.copper-clad', facts: { isCopperClad: true }, severity: 'caution', says: /luminium/ },
  { rule: 'power.copper-between-buildings', facts: { isCopperOutside: true }, severity: 'fix', says: /Fibre/ },
  {
    rule: 'power.passive-volts-wrong',
    facts: { passiveVolts: 48 },
    severity: 'stop',
    says: /supplies 48 V, allowed are 10\.8 to 28/,
  },
  {
    rule: 'power.passive-volts-wrong',
    facts: { passiveVolts: 48, maxVolts: undefined, supplyVolts: undefined },
    severity: 'fix',
    says: /Whether it tolerates 48 V is not known/,
  },
  {
    rule: 'power.run',
    facts: { runVerdict: 'will-not-work', runM: 30 },
    severity: 'stop',
    says: /30\.0 m.*24\.0 m/s,
  },
  { rule: 'power.run', facts: { runVerdict: 'tight', runNightVolts: 10.9 }, severity: 'fix', says: /10\.9 V/ },
  { rule: 'power.supply-too-small', facts: { supplyLoadA: 2.4 }, severity: 'stop', says: /2\.40 A/ },
  {
    rule: 'power.latitude-missing',
    facts: { way: 'solar', waysOffered: ['solar'], latitudeKnown: false, isOutdoors: false },
    severity: 'fix',
    says: /latitude/,
  },
  {
    rule: 'power.winter',
    facts: { ...SUN, shortMonths: [11, 12, 1], sunMargin: 0.62 },
    severity: 'stop',
    says: /Nov to Jan.*In Dec a day yields 62 %/s,
  },
  { rule: 'power.winter', facts: { ...SUN, sunMargin: 1.1 }, severity: 'fix', says: /Dec .*110 %.*130 %/s },
  {
    rule: 'power.winter',
    facts: { ...SUN, unknownMonths: [12, 1] },
    severity: 'fix',
    says: /Dec and Jan not known/,
  },
  { rule: 'power.few-dark-days', facts: { ...SUN, autonomyDays: 2.2 }, severity: 'fix', says: /2\.2 dark days/ },
  {
    rule: 'power.lead-cold',
    facts: { way: 'solar', waysOffered: ['solar'], isLithium: false },
    severity: 'caution',
    says: /three tenths/,
  },
  { rule: 'power.lithium-cold', facts: { way: 'solar', waysOffered: ['solar'] }, severity: 'caution', says: /0 °C/ },
  { rule: 'power.old-phone-unlimited', facts: { chargeUnlimited: true }, severity: 'fix', says: /80 %/ },
  { rule: 'power.old-phone-hot', facts: { batteryC: 52 }, severity: 'fix', says: /52 °C: switch it off/ },
  { rule: 'power.old-phone-swollen', facts: { isSwollen: true }, severity: 'stop', says: /stop at once/ },
  { rule: 'air.band-not-spoken', facts: { band: '5' }, severity: 'stop', says: /5 GHz/ },
  { rule: 'air.signal', facts: { rssiDbm: -80 }, severity: 'stop', says: /-80 dBm/ },
  { rule: 'air.signal', facts: { rssiDbm: -70 }, severity: 'fix', says: /-70 dBm/ },
  { rule: 'air.signal-not-measured', facts: { rssiIsMeasured: false }, severity: 'note', says: /computed/ },
  {
    rule: 'air.airtime',
    facts: { airtime: 0.7, airVerdict: 'will-not-work', airtimeSharers: ['Boot room'] },
    severity: 'stop',
    says: /70 %.*Boot room/,
  },
  { rule: 'air.airtime', facts: { airtime: 0.5, airVerdict: 'tight' }, severity: 'fix', says: /50 %/ },
  { rule: 'air.airtime', facts: { airVerdict: 'unknown' }, severity: 'note', says: /not known/ },
  { rule: 'link.load', facts: { wireMbps: 80, wireVerdict: 'will-not-work' }, severity: 'stop', says: /80\.0 of 100/ },
  { rule: 'link.load', facts: { wireMbps: 60, wireVerdict: 'tight' }, severity: 'fix', says: /60\.0 of 100/ },
  {
    rule: 'link.load',
    facts: { wireVerdict: 'unknown', wireUnknown: 2 },
    severity: 'note',
    says: /not known.*2 streams/,
  },
  { rule: 'link.switch-ports', facts: { cablesOn: 9 }, severity: 'stop', says: /8 ports 9 cables/ },
  { rule: 'link.powerline-guessed', facts: { crossesPowerline: true }, severity: 'caution', says: /sync rate/ },
  { rule: 'power.not-known', facts: { wanted: ['its watts'] }, severity: 'note', says: /Missing: its watts/ },
  {
    rule: 'power.not-known',
    facts: { wanted: [], silentBeside: ['Orchard track'] },
    severity: 'note',
    says: /the watts of Orchard track on the same supply\. Choose a model card for Orchard track/,
  },
  { rule: 'link.not-joined', facts: { isDrawn: true, unjoined: ['Mill hub'] }, severity: 'fix', says: /Mill hub/ },
];

const found = <F>(rules: readonly AnyRule<F>[], facts: Facts<F>): readonly Finding[] =>
  findingsOf(judgeRows(rules, facts));

function heldTo<F>(
  name: string,
  rules: readonly AnyRule<F>[],
  sound: Facts<F>,
  fires: readonly Firing<F>[],
  others: readonly string[],
): void {
  describe(name, () => {
    test('nothing is said where all is well', () => expect(found(rules, sound)).toEqual([]));

    test.each(fires)('$rule fires, alone', ({ rule, facts, severity, says }) => {
      const findings = found(rules, { ...sound, ...facts });
      expect(findings).toMatchObject([{ rule, severity }]);
      expect(`${findings[0]?.title} ${findings[0]?.because} ${findings[0]?.do.join(' ')}`).toMatch(says);
    });

    test('every rule has a case that fires it, a source, and an id of its own', () => {
      const ids = rules.map(({ id }) => id);
      expect([...new Set([...fires.map(({ rule }) => rule), ...others])].sort()).toEqual([...ids].sort());
      expect(new Set(ids).size).toBe(ids.length);
      for (const { source, why } of rules) expect(Math.min(source.length, why.length)).toBeGreaterThan(8);
    });

    test('with nothing known, nothing is said: each rule is not evaluated', () => {
      for (const { finding, verdict, missing } of judgeRows(rules, {}))
        expect([finding, verdict, missing.length > 0]).toEqual([null, 'unknown', true]);
    });
  });
}

heldTo('choose', CHOOSE_RULES, SERVES, CHOOSE_FIRES, ['choose.no-sound', 'choose.sound-is-asked']);
heldTo('power', POWER_RULES, HOLDS, POWER_FIRES, ['power.battery-streams-all-day']);

test('sound that is asked for and is not there: a stop, and the word about consent', () => {
  const findings = found(CHOOSE_RULES, { ...SERVES, soundWanted: 'talk', sound: 'hear' });
  expect(findings.map(({ rule }) => rule)).toEqual(['choose.no-sound', 'choose.sound-is-asked']);
});

/** What the table shows of the questions that count, without what only informs. */
const asked = (facts: Facts<ChooseFacts>) => {
  const counts = new Set(judgeChoice(facts).rows.flatMap(({ rule, weighs }) => (weighs ? rule : [])));
  return weigh([facts]).filter(({ id }) => counts.has(id));
};

test.each([
  { rule: 'none', facts: {} },
  ...CHOOSE_FIRES,
  { rule: 'choose.no-sound', facts: { soundWanted: 'talk' as const, sound: 'hear' as const } },
])('$rule: the table of candidates says what the verdict rests on', ({ facts }) => {
  const all = { ...SERVES, ...facts };
  const { rows, verdict } = judgeChoice(all);
  for (const { rule, finding, weighs } of rows)
    if (finding && weighs) expect(asked(all).map(({ id }) => id)).toContain(rule);
  for (const { id, answers } of asked(all))
    expect(answers[0]?.verdict).toBe(rows.find(({ rule }) => rule === id)?.verdict);
  expect(verdictOf(rows)).toBe(verdict);
});

test('every verdict that a rule may give is said: its cell, its finding', () => {
  for (const { facts } of CHOOSE_FIRES)
    for (const rule of CHOOSE_RULES) {
      const cell = cellOf(rule, { ...SERVES, ...facts }, 'unsaid');
      if (cell) expect(Math.min(cell.said.length, cell.reason.length)).toBeGreaterThan(0);
    }
});

const SAID_BY_CARD = [
  'pxPerM',
  'textPxPerM',
  'viewWidthM',
  'zoneSeenM',
  'faceSeenFromM',
  'seenFromM',
  'slantM',
  'lightKind',
  'lightReachM',
  'lightAngleDeg',
  'localStream',
  'sessions',
  'codecs',
  'missedBy',
  'hasSub',
  'ingress',
  'sound',
  'panRangeDeg',
] as const;

test.each([
  ...SAID_BY_CARD.map((fact) => ({ fact, isAsked: true })),
  ...(['ways', 'supplyInBox', 'gapDeg'] as const).map((fact) => ({ fact, isAsked: false })),
])('a card that does not say $fact: the verdict and the table agree', ({ fact, isAsked }) => {
  const asking = { ...SERVES, soundWanted: 'talk', sound: 'talk', turnsWanted: true, panRangeDeg: 350 } as const;
  const { [fact]: _, ...known } = asking;
  const silent = asked(known).some(({ answers }) => answers[0]?.verdict === 'unknown');
  expect([judgeChoice(known).verdict === 'unknown', silent]).toEqual([isAsked, isAsked]);
});

test('a higher voltage is advised only to what takes it', () => {
  const advice = (maxVolts: number) =>
    found(POWER_RULES, { ...HOLDS, runVerdict: 'will-not-work', maxVolts, supplyVolts: 12 })
      .filter(({ rule }) => rule === 'power.run')
      .flatMap((finding) => finding.do)
      .join(' ');
  expect(advice(13.2)).not.toMatch(/higher voltage/);
  expect(advice(28)).toMatch(/higher voltage/);
});

test('a battery that is watched all day fails its winter too', () => {
  const findings = found(POWER_RULES, {
    ...HOLDS,
    way: 'solar',
    waysOffered: ['solar'],
    isOutdoors: false,
    hasConstantTap: true,
    shortMonths: [12],
    sunMargin: 0.4,
  });
  expect(findings.map(({ rule }) => rule)).toEqual(['power.winter', 'power.battery-streams-all-day']);
});

test.each([
  { why: 'exactly at the level', facts: { pxPerM: 125 } },
  { why: 'the zone begins where the ground is seen', facts: { seenFromM: 5 } },
  { why: 'steep, but no face is wanted', facts: { depressionDeg: 60, wantsFaces: false } },
  { why: 'no light, and nobody asks for the night', facts: { atNight: false, lightKind: 'none' as const } },
  { why: 'IP20 indoors', facts: { ingress: 20, outdoors: false } },
  { why: 'a supply is missing, and the switch feeds it', facts: { supplyInBox: false, ways: ['poe' as const] } },
])('choose says nothing when $why', ({ facts }) => expect(found(CHOOSE_RULES, { ...SERVES, ...facts })).toEqual([]));

test.each([
  { why: 'the budget is met exactly, with its tenth free', facts: { reservedW: 58.5 } },
  { why: 'the worst month brings just a third more', facts: { sunMargin: 1.3 } },
  { why: 'a signal is just safe', facts: { rssiDbm: -67 } },
  { why: 'a handset is warm and not hot', facts: { batteryC: 45 } },
])('power says nothing when $why', ({ facts }) => expect(found(POWER_RULES, { ...HOLDS, ...facts })).toEqual([]));
