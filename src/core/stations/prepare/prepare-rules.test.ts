import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { traitsOf } from '../../auth/secret-traits.ts';
import { type AnyRule, type Facts, findingsOf, judgeRows, verdictOf } from '../../findings/rule.ts';
import type { PrepareFacts } from './prepare-facts.ts';
import { PREPARE_RULES } from './prepare-rules.ts';
import type { Setting } from './settings.ts';

const ALONE = { factory: null, administrator: null, sharedWith: [], sameLetters: [] };
const secret = (text: string, others: Partial<typeof ALONE | { sharedWith: string[]; sameLetters: string[] }> = {}) =>
  traitsOf(text, { ...ALONE, ...others });
const GOOD = 'pkEYtq7m2RdwV9zc';

const setting = (id: Setting['id'], ticked: Setting['seen'], seen: Setting['seen'], wanted = ticked): Setting => ({
  id,
  subject: 'camera:c',
  label: id,
  kind: 'flag',
  unit: '',
  options: [],
  wanted,
  why: '',
  ticked: ticked === null ? null : { value: ticked, how: 'confirmed', source: 'hand', takenAt: null },
  seen,
});

/** A camera that is prepared: account, settings, an image that fits, and a handset that is cool. */
const PREPARED: Facts<PrepareFacts> = {
  hasAccount: true,
  isOpen: false,
  user: 'view-yard',
  adminUser: 'setter',
  factoryUsers: ['admin', 'quill'],
  caseApart: [],
  secret: secret(GOOD),
  refusedBy: [],
  strongBits: 64,
  weakBits: 45,
  settings: [setting('login-on', true, true)],
  openSettings: [],
  soundWanted: false,
  keyFrames: [{ stream: 'main', seconds: 2, wantedS: 2, how: 'planned' }],
  needsFirmware: true,
  decision: 'community',
  vetoes: [],
  openVetoes: [],
  writes: true,
  hasImage: true,
  marksApart: [],
  marksUnknown: [],
  labelRev: 'r2',
  cardRev: 'R2',
  imageRev: 'r2',
  labelVersion: '1.0',
  imageVersion: '2.1',
  imageHash: 'ok',
  imageBytes: 7e6,
  backHash: 'ok',
  isSameImage: false,
  hasBack: true,
  isBackGivenUp: false,
  hasGuide: true,
  hasCard: true,
  partitionFits: true,
  partitionMiB: 8192,
  limitGiB: 32,
  fileSystem: 'FAT32',
  fileSystemWanted: 'FAT32',
  imageFitsCard: true,
  isFileSystemPossible: true,
  nameWanted: 'fw.bin',
  nameOnCard: 'fw.bin',
  nameVerdict: 'ok',
  readBack: { isSame: true, nameVerdict: 'ok', fileName: 'fw.bin' },
  isRehearsed: true,
  sameLeds: [],
  isOldPhone: true,
  steadyC: 38,
  isHeatedElsewhere: false,
  minutesToWarm: null,
  oldPhoneW: 1.8,
  roomC: 22,
  cellWarmC: 45,
  cellHotC: 50,
  isHeatRead: false,
  mount: 'open',
  screen: 'off',
  lens: 'back',
  way: 'local',
  startsItself: true,
  hasFixedMac: true,
  sendsSound: false,
  isHeardNearby: false,
  atNight: true,
  hasLight: true,
  wantsDetail: true,
  loopHours: 60,
  loopHoursWanted: 24,
};

interface Firing {
  readonly rule: string;
  readonly facts: Facts<PrepareFacts>;
  readonly severity: 'stop' | 'fix' | 'caution' | 'note';
  readonly says: RegExp;
}

const FIRES: readonly Firing[] = [
  { rule: 'prepare.account', facts: { hasAccount: false }, severity: 'caution', says: /No streaming account yet/ },
  {
    rule: 'prepare.account',
    facts: { hasAccount: false, isOpen: true },
    severity: 'fix',
    says: /everybody on the network/,
  },
  {
    rule: 'prepare.account-administrators',
    facts: { user: 'Setter' },
    severity: 'fix',
    says: /Both are called Setter/,
  },
  {
    rule: 'prepare.account-factory',
    facts: { user: 'Quill' },
    severity: 'caution',
    says: /Common account name: Quill/,
  },
  { rule: 'prepare.account-makers', facts: { user: 'a@b.example' }, severity: 'fix', says: /maker’s cloud/ },
  { rule: 'prepare.account-space', facts: { user: 'viewer ' }, severity: 'fix', says: /ends with a space/ },
  { rule: 'prepare.account-encoded', facts: { user: 'mill viewer' }, severity: 'note', says: /mill%20viewer/ },
  {
    rule: 'prepare.account-case',
    facts: { caseApart: ['View-Yard'] },
    severity: 'caution',
    says: /View-Yard elsewhere/,
  },
  {
    rule: 'prepare.password-known',
    facts: { secret: secret('Admin123') },
    severity: 'stop',
    says: /Well-known password/,
  },
  {
    rule: 'prepare.password-shared',
    facts: { secret: secret(GOOD, { sharedWith: ['Gate', 'Yard'] }) },
    severity: 'fix',
    says: /2 other cameras.*Gate, Yard/s,
  },
  {
    rule: 'prepare.password-administrators',
    facts: { secret: secret(GOOD, { administrator: GOOD } as never) },
    severity: 'fix',
    says: /set-up account/,
  },
  {
    rule: 'prepare.password-space',
    facts: { secret: secret(`${GOOD} `) },
    severity: 'fix',
    says: /ends with a space/,
  },
  {
    rule: 'prepare.password-case',
    facts: { secret: secret(GOOD, { sameLetters: [GOOD.toUpperCase()] }) },
    severity: 'caution',
    says: /upper and lower case/,
  },
  {
    rule: 'prepare.password-refused',
    facts: { refusedBy: ['Kitchen tablet takes 24 signs at most'] },
    severity: 'stop',
    says: /Kitchen tablet takes 24 signs at most\./,
  },
  {
    rule: 'prepare.password-encoded',
    facts: { secret: secret('oiled#laces&more') },
    severity: 'note',
    says: /2 characters of it have/,
  },
  {
    rule: 'prepare.password-weak',
    facts: { secret: secret('oaktree') },
    severity: 'fix',
    says: /At most 28 bits: guessed within an hour/,
  },
  {
    rule: 'prepare.password-weak',
    facts: { secret: secret('oakdoorlatch') },
    severity: 'caution',
    says: /from 64 bits/,
  },
  {
    rule: 'prepare.seen-off',
    facts: { settings: [setting('stream-on', true, false)] },
    severity: 'fix',
    says: /port closed/,
  },
  {
    rule: 'prepare.seen-open',
    facts: { settings: [setting('login-on', true, false)] },
    severity: 'fix',
    says: /confirmed yes, measured no/,
  },
  {
    rule: 'prepare.seen-other-codec',
    facts: { settings: [setting('codec', 'H264', 'H265')] },
    severity: 'fix',
    says: /confirmed H264, measured H265/,
  },
  {
    rule: 'prepare.seen-other-size',
    facts: { settings: [setting('size', '1920x1080', '1280×720')] },
    severity: 'fix',
    says: /measured 1280×720/,
  },
  {
    rule: 'prepare.seen-other-frames',
    facts: { settings: [setting('fps', 15, 8)] },
    severity: 'fix',
    says: /halve the rate in the dark/,
  },
  {
    rule: 'prepare.seen-other-key-frame',
    facts: { settings: [setting('key-frame', 2, 10)] },
    severity: 'fix',
    says: /measured 10/,
  },
  {
    rule: 'prepare.seen-sound',
    facts: { settings: [setting('sound', false, true)], soundWanted: true },
    severity: 'fix',
    says: /confirmed no, measured yes/,
  },
  {
    rule: 'prepare.login-off',
    facts: { settings: [setting('login-on', false, null)] },
    severity: 'fix',
    says: /no login/,
  },
  {
    rule: 'prepare.sound-unasked',
    facts: { settings: [setting('sound', true, null)] },
    severity: 'caution',
    says: /without a need/,
  },
  {
    rule: 'prepare.key-frame-long',
    facts: { keyFrames: [{ stream: 'sub', seconds: 4.5, wantedS: 2, how: 'measured' }] },
    severity: 'caution',
    says: /sub: 4\.5 s \(measured\), 2 s/,
  },
  {
    rule: 'prepare.firmware-undecided',
    facts: { decision: null },
    severity: 'caution',
    says: /no local stream/,
  },
  {
    rule: 'prepare.firmware-kept',
    facts: { decision: 'keep', writes: false },
    severity: 'fix',
    says: /No local stream/,
  },
  {
    rule: 'prepare.firmware-veto',
    facts: { vetoes: ['No backup and no recovery loader.'] },
    severity: 'stop',
    says: /No backup/,
  },
  { rule: 'prepare.firmware-no-guide', facts: { hasGuide: false }, severity: 'caution', says: /guide missing/ },
  { rule: 'prepare.firmware-file', facts: { hasImage: false }, severity: 'caution', says: /Firmware file missing/ },
  {
    rule: 'prepare.firmware-markings',
    facts: { marksApart: ['sensor S307 here, S420 in the image'] },
    severity: 'stop',
    says: /Sensor S307 here/,
  },
  {
    rule: 'prepare.firmware-markings',
    facts: { marksUnknown: ['radio'] },
    severity: 'caution',
    says: /Not entered: radio/,
  },
  {
    rule: 'prepare.firmware-label',
    facts: { imageRev: 'r3' },
    severity: 'stop',
    says: /label says r2, the firmware file is for r3/,
  },
  { rule: 'prepare.firmware-label', facts: { cardRev: 'r1' }, severity: 'fix', says: /the model card r1/ },
  { rule: 'prepare.firmware-version', facts: { imageVersion: '1.0' }, severity: 'caution', says: /Both are 1\.0/ },
  {
    rule: 'prepare.firmware-checksum',
    facts: { imageHash: 'mismatch' },
    severity: 'stop',
    says: /not the published file/,
  },
  { rule: 'prepare.firmware-checksum', facts: { imageHash: 'bad-digest' }, severity: 'stop', says: /incomplete/ },
  { rule: 'prepare.firmware-checksum', facts: { imageHash: 'unsaid' }, severity: 'caution', says: /not compared/ },
  { rule: 'prepare.way-back', facts: { hasBack: false }, severity: 'fix', says: /nobody has accepted/ },
  { rule: 'prepare.way-back', facts: { hasBack: false, isBackGivenUp: true }, severity: 'caution', says: /, accepted/ },
  { rule: 'prepare.way-back-same', facts: { isSameImage: true }, severity: 'stop', says: /same SHA-256/ },
  { rule: 'prepare.sd-card', facts: { hasCard: false }, severity: 'caution', says: /SD card not planned/ },
  {
    rule: 'prepare.sd-card-partition',
    facts: { partitionMiB: 65_536 },
    severity: 'stop',
    says: /64\.0 GiB; it reads 32 GiB/,
  },
  {
    rule: 'prepare.sd-card-partition',
    facts: { partitionFits: false },
    severity: 'stop',
    says: /larger than the SD card/,
  },
  {
    rule: 'prepare.sd-card-file-system',
    facts: { fileSystem: 'exFAT' },
    severity: 'stop',
    says: /exFAT instead of FAT32/,
  },
  { rule: 'prepare.sd-card-room', facts: { imageFitsCard: false }, severity: 'stop', says: /7 MB/ },
  {
    rule: 'prepare.sd-card-name',
    facts: { nameOnCard: 'fw.bin.txt', nameVerdict: 'extra-extension' },
    severity: 'stop',
    says: /“fw\.bin\.txt” is not “fw\.bin”: a second extension/,
  },
  { rule: 'prepare.read-back', facts: { readBack: undefined }, severity: 'caution', says: /not compared/ },
  {
    rule: 'prepare.read-back',
    facts: { readBack: { isSame: false, nameVerdict: 'ok', fileName: 'fw.bin' } },
    severity: 'stop',
    says: /differs from that/,
  },
  {
    rule: 'prepare.read-back',
    facts: { readBack: { isSame: true, nameVerdict: 'case', fileName: 'FW.BIN' } },
    severity: 'stop',
    says: /“FW\.BIN”/,
  },
  { rule: 'prepare.rehearsal', facts: { isRehearsed: false }, severity: 'note', says: /Not rehearsed/ },
  {
    rule: 'prepare.led-patterns-alike',
    facts: { sameLeds: ['“a” and “b” are both dark'] },
    severity: 'caution',
    says: /both dark/,
  },
  {
    rule: 'prepare.firmware-veto',
    facts: { openVetoes: ['Whether it belongs to the customer is not known.'] },
    severity: 'fix',
    says: /not answered/,
  },
  {
    rule: 'prepare.reflash-open',
    facts: { phase: 'insert', hasWritten: true },
    severity: 'stop',
    says: /it is not as before/,
  },
  { rule: 'prepare.old-phone-heated', facts: { isHeatedElsewhere: true }, severity: 'fix', says: /sun on it/ },
  {
    rule: 'prepare.sd-card-file-system',
    facts: { isFileSystemPossible: false },
    severity: 'stop',
    says: /65.525 clusters/,
  },
  {
    rule: 'prepare.reflash-open',
    facts: { phase: 'writing', hasWritten: true },
    severity: 'caution',
    says: /power must not fail/,
  },
  {
    rule: 'prepare.reflash-open',
    facts: { phase: 'recover', hasWritten: true },
    severity: 'stop',
    says: /recovery needed/,
  },
  {
    rule: 'prepare.reflash-open',
    facts: { phase: 'replaced', hasWritten: true },
    severity: 'stop',
    says: /no recovery/,
  },
  {
    rule: 'prepare.old-phone-heat',
    facts: { steadyC: 47.4, minutesToWarm: 31.9 },
    severity: 'fix',
    says: /too warm after 31 min.*1\.8 W in a room of 22 °C lead to 47 °C/s,
  },
  { rule: 'prepare.old-phone-heat', facts: { steadyC: 52 }, severity: 'stop', says: /52 °C: too hot/ },
  { rule: 'prepare.old-phone-screen', facts: { screen: 'bright' }, severity: 'caution', says: /stays on/ },
  { rule: 'prepare.old-phone-restart', facts: { startsItself: false }, severity: 'fix', says: /restart/ },
  { rule: 'prepare.old-phone-mac', facts: { hasFixedMac: false }, severity: 'fix', says: /Random MAC address/ },
  {
    rule: 'prepare.old-phone-feedback',
    facts: { sendsSound: true, isHeardNearby: true },
    severity: 'fix',
    says: /feedback/,
  },
  { rule: 'prepare.old-phone-cloud', facts: { way: 'account' }, severity: 'fix', says: /maker’s cloud/ },
  { rule: 'prepare.old-phone-lens', facts: { lens: 'front' }, severity: 'caution', says: /Front lens/ },
  { rule: 'prepare.old-phone-dark', facts: { hasLight: false }, severity: 'fix', says: /No picture at night/ },
  { rule: 'prepare.old-phone-loop', facts: { loopHours: 10 }, severity: 'fix', says: /after 10 h.*24 h are needed/s },
  { rule: 'prepare.old-phone-loop', facts: { loopHours: 25 }, severity: 'caution', says: /just enough/ },
];

const RULES: readonly AnyRule<PrepareFacts>[] = PREPARE_RULES;
const found = (facts: Facts<PrepareFacts>) => findingsOf(judgeRows(RULES, { ...PREPARED, ...facts }));

test('of a camera that is prepared nothing is said', () => expect(found({})).toEqual([]));

test.each(FIRES)('$rule, $severity: it says $says', ({ rule, facts, severity, says }) => {
  const finding = found(facts).find((one) => one.rule === rule);
  expect(finding).toMatchObject({ rule, severity });
  expect(`${finding?.title} ${finding?.because} ${finding?.do.join(' ')}`).toMatch(says);
});

/** It says nothing by itself: what is left stands in the list of settings. */
const QUIET = 'prepare.settings-open';
test('settings that nobody looked at are not known', () => {
  const rows = judgeRows(RULES, { ...PREPARED, openSettings: ['Login required'] });
  expect(rows.find(({ rule }) => rule === QUIET)).toMatchObject({ verdict: 'unknown', finding: null, weighs: true });
  expect(verdictOf(rows)).toBe('unknown');
});

test('every rule fires in the table, and is not known without what it needs', () => {
  expect([...new Set([...FIRES.map(({ rule }) => rule), QUIET])].sort()).toEqual(RULES.map(({ id }) => id).sort());
  for (const rule of RULES)
    for (const need of rule.needs) {
      const facts: Facts<PrepareFacts> = { ...PREPARED, ...FIRES.find((one) => one.rule === rule.id)?.facts };
      const [row] = judgeRows([rule], { ...facts, [need]: undefined });
      // Its question is not asked any more, or it is asked and not known; it is never fine.
      if (row) expect([rule.id, need, row.verdict]).toEqual([rule.id, need, 'unknown']);
    }
});

describe('verdicts on a secret, against a computation of the test’s own', () => {
  const anySecret = fc.oneof(
    fc.string({ minLength: 1, maxLength: 40 }),
    fc.constantFrom('admin', 'Weir & Gate/7', 'x '),
  );
  const fires = (rule: string, text: string): boolean =>
    found({ secret: secret(text) }).some((one) => one.rule === rule);

  test('it must be encoded exactly when a URL would change it', () => {
    fc.assert(
      fc.property(anySecret, (text) => {
        // the browser’s own encoder, and the five signs that it leaves and RFC 3986 reserves
        const encoded = encodeURIComponent(text).replace(/[!'()*]/g, '%');
        expect(fires('prepare.password-encoded', text)).toBe(encoded !== text);
      }),
    );
  });

  test('a blank at its end is found wherever it is, and nowhere else', () => {
    fc.assert(
      fc.property(anySecret, (text) => {
        const isBlank = /\s/.test(text.charAt(0)) || /\s/.test(text.charAt(text.length - 1));
        expect(fires('prepare.password-space', text)).toBe(isBlank);
      }),
    );
  });

  test('none of its signs stands in any word that is said of it', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('ж', 'щ', 'ю', '☂', '§'), minLength: 6, maxLength: 20 }),
        (text) => {
          const said = JSON.stringify(found({ secret: secret(text, { sharedWith: ['Gate'] }) }));
          for (const sign of text) expect(said).not.toContain(sign);
        },
      ),
    );
  });
});
