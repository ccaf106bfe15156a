import { sayQuantity } from '../../document/chapters/journal/quantities.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { PrepareFacts, PrepareOffers } from './prepare-facts.ts';
import { agrees, type Setting, type SettingId } from './settings.ts';

const rule = rulesFor<PrepareFacts, PrepareOffers, SiteCommand>();

const say = (value: Setting['wanted']): string => (value === null ? 'nothing' : sayQuantity('', value));
const isTicked = (settings: readonly Setting[] | undefined, id: SettingId, value: boolean): boolean =>
  settings?.some((one) => one.id === id && one.ticked?.value === value) ?? false;

/** Settings of one kind that were ticked one way, and seen another. */
const apart = (settings: readonly Setting[], id: SettingId): readonly Setting[] =>
  settings.filter(
    (one) => one.id === id && one.ticked !== null && one.seen !== null && !agrees(id, one.ticked.value, one.seen),
  );
const isSeen = ({ settings }: Facts<PrepareFacts>, id: SettingId): boolean =>
  settings?.some((one) => one.id === id && one.ticked !== null && one.seen !== null) ?? false;

interface SeenRow {
  readonly id: `prepare.seen-${string}`;
  readonly question: string;
  readonly setting: SettingId;
  readonly title: string;
  readonly do: string;
  readonly why: string;
}

/** What a device does against what was ticked: one row for each setting that a probe can see. */
const SEEN: readonly SeenRow[] = [
  {
    id: 'prepare.seen-off',
    question: 'Does its stream answer, as confirmed?',
    setting: 'stream-on',
    title: 'RTSP confirmed as on, port closed',
    do: 'Check whether it was switched on and saved; some need a restart. Then probe again.',
    why: 'A page that is left without saving looks just like one that was saved.',
  },
  {
    id: 'prepare.seen-open',
    question: 'Does it require a login, as confirmed?',
    setting: 'login-on',
    title: 'Login differs from what was confirmed',
    do: 'Switch the login of the stream on; some have one for the web page and another for the stream.',
    why: 'A web page behind a login says nothing about the stream beside it.',
  },
  {
    id: 'prepare.seen-other-codec',
    question: 'Is the codec the one confirmed?',
    setting: 'codec',
    title: 'Codec differs from what was confirmed',
    do: 'Set the codec at the camera and save it, or confirm the one it has.',
    why: 'Its destinations were chosen for the confirmed codec.',
  },
  {
    id: 'prepare.seen-other-size',
    question: 'Is the resolution the one confirmed?',
    setting: 'size',
    title: 'Resolution differs from what was confirmed',
    do: 'Set the resolution at the camera and save it, or confirm the one it has.',
    why: 'Detail, disk and links were computed with the confirmed resolution.',
  },
  {
    id: 'prepare.seen-other-frames',
    question: 'Is the frame rate the one confirmed?',
    setting: 'fps',
    title: 'Frame rate differs from what was confirmed',
    do: 'Check its light: many cameras halve the rate in the dark. Otherwise set it again and save it.',
    why: 'A lower rate makes motion jump, a higher one fills the disk.',
  },
  {
    id: 'prepare.seen-other-key-frame',
    question: 'Is the key-frame interval the one confirmed?',
    setting: 'key-frame',
    title: 'Key-frame interval differs from what was confirmed',
    do: 'Set it in frames where the camera asks for frames: seconds times frame rate.',
    why: 'Some cameras ask for frames, some for seconds, and do not say which.',
  },
  {
    id: 'prepare.seen-sound',
    question: 'Is its audio as confirmed?',
    setting: 'sound',
    title: 'Audio differs from what was confirmed',
    do: 'Switch the audio of the stream at the camera; each stream often has its own switch.',
    why: 'Audio recorded by mistake is the more serious fault.',
  },
];

const seenRule = (row: SeenRow) =>
  rule({
    id: row.id,
    question: row.question,
    source: 'what was confirmed by hand against what a probe measured',
    needs: ['settings'],
    asks: (f) => isSeen(f, row.setting),
    isTight: (f) => apart(f.settings, row.setting).length > 0,
    severity: 'fix',
    title: () => row.title,
    because: (f) =>
      apart(f.settings, row.setting)
        .map(({ label, ticked, seen }) => `${label}: confirmed ${say(ticked?.value ?? null)}, measured ${say(seen)}.`)
        .join(' '),
    do: [row.do],
    why: row.why,
  });

/** The settings that decide whether the later stations succeed. */
export const SETTING_RULES = [
  rule({
    id: 'prepare.settings-open',
    question: 'Are all settings that matter confirmed?',
    source: 'what nobody checked is not known',
    needs: ['openSettings'],
    judge: (f) => (f.openSettings.length > 0 ? 'unknown' : 'ok'),
    // what is left stands in the list itself, and as the next step: a finding for each camera would only hide others
    when: {},
    why: 'Most hours on a site are lost to a setting that somebody took for granted.',
  }),
  ...SEEN.map(seenRule),
  rule({
    id: 'prepare.login-off',
    question: 'Was it confirmed that it requires no login?',
    source: 'least right that serves [A]',
    needs: ['settings'],
    asks: (f) => isTicked(f.settings, 'login-on', false),
    isTight: () => true,
    severity: 'fix',
    title: () => 'Confirmed: no login required',
    because: () => 'Everybody on the network can view its stream.',
    do: ['Switch the login of the stream on, and confirm it again.'],
    why: 'A guest’s phone is on the network too.',
  }),
  rule({
    id: 'prepare.sound-unasked',
    question: 'Does it send audio that the need does not ask for?',
    source: 'law is stricter about audio; local advice counts [A]',
    needs: ['settings', 'soundWanted'],
    asks: (f) =>
      isTicked(f.settings, 'sound', true) ||
      (f.settings?.some((one) => one.id === 'sound' && one.seen === true) ?? false),
    isTight: (f) => !f.soundWanted,
    severity: 'caution',
    title: () => 'Audio sent without a need for it',
    because: () => 'The need of its place includes no audio.',
    do: ['Switch the audio off, or enter in its need that it is wanted and that consent was asked for.'],
    why: 'Recording what people say needs more consent than recording what they do.',
  }),
  rule({
    id: 'prepare.key-frame-long',
    question: 'Is the key-frame interval short enough for its use?',
    source: 'longest key-frame interval that a use tolerates, twice over [A]',
    needs: ['keyFrames'],
    asks: (f) => (f.keyFrames?.length ?? 0) > 0,
    isTight: (f) => f.keyFrames.some(isLong),
    severity: 'caution',
    title: () => 'Key-frame interval too long for its use',
    because: (f) =>
      f.keyFrames
        .filter(isLong)
        .map(({ stream, seconds, wantedS, how }) => `${stream}: ${seconds.toFixed(1)} s (${how}), ${wantedS} s needed.`)
        .join(' '),
    do: ['Set the key-frame interval at the camera.'],
    mends: (_, offers) => offers.keyFrames(),
    why: 'Until the next key frame nothing is shown: a viewer stays dark, a recording begins late.',
  }),
] as const;

const isLong = ({ seconds, wantedS }: PrepareFacts['keyFrames'][number]): boolean => seconds > 2 * wantedS * (1 + 1e-6);
