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
    question: 'Does its stream answer, as it was ticked?',
    setting: 'stream-on',
    title: 'Its stream was ticked as switched on, and nothing listens',
    do: 'Look whether it was switched on and kept; some want a restart. Then probe again.',
    why: 'A page that is left without keeping looks just like one that was kept.',
  },
  {
    id: 'prepare.seen-open',
    question: 'Does it ask for a login, as it was ticked?',
    setting: 'login-on',
    title: 'Its login does not behave as it was ticked',
    do: 'Switch the login of the stream on; some have one for the page and another one for the stream.',
    why: 'A page behind a login says nothing about the stream beside it.',
  },
  {
    id: 'prepare.seen-other-codec',
    question: 'Does it give the codec that was ticked?',
    setting: 'codec',
    title: 'It gives another codec than was ticked',
    do: 'Set the codec at the camera and keep it, or tick what it gives.',
    why: 'Who draws it was chosen for the codec that was ticked.',
  },
  {
    id: 'prepare.seen-other-size',
    question: 'Does it give the picture that was ticked?',
    setting: 'size',
    title: 'It gives another picture than was ticked',
    do: 'Set its size at the camera and keep it, or tick what it gives.',
    why: 'Detail, disk and links were worked out with the size that was ticked.',
  },
  {
    id: 'prepare.seen-other-frames',
    question: 'Does it give the frames that were ticked?',
    setting: 'fps',
    title: 'It gives other frames a second than were ticked',
    do: 'Look at its light: many give half in the dark. Else set them again and keep them.',
    why: 'Fewer frames are jumps, more frames fill the disk.',
  },
  {
    id: 'prepare.seen-other-key-frame',
    question: 'Do its key frames come as they were ticked?',
    setting: 'key-frame',
    title: 'Its key frames come otherwise than was ticked',
    do: 'Set their distance in frames where it asks for frames: seconds times frames a second.',
    why: 'Some ask for frames, some for seconds, and do not say which.',
  },
  {
    id: 'prepare.seen-sound',
    question: 'Is its sound as it was ticked?',
    setting: 'sound',
    title: 'Its sound is not as it was ticked',
    do: 'Switch the sound of the stream at the camera; it often has a switch for each stream.',
    why: 'Sound that nobody meant to record is the dearer mistake.',
  },
];

const seenRule = (row: SeenRow) =>
  rule({
    id: row.id,
    question: row.question,
    source: 'what was ticked by hand against what a probe saw',
    needs: ['settings'],
    asks: (f) => isSeen(f, row.setting),
    isTight: (f) => apart(f.settings, row.setting).length > 0,
    severity: 'fix',
    title: () => row.title,
    because: (f) =>
      apart(f.settings, row.setting)
        .map(({ label, ticked, seen }) => `${label}: ticked ${say(ticked?.value ?? null)}, seen ${say(seen)}.`)
        .join(' '),
    do: [row.do],
    why: row.why,
  });

/** The settings that decide whether the later stations succeed. */
export const SETTING_RULES = [
  rule({
    id: 'prepare.settings-open',
    question: 'Did somebody look at every setting that decides?',
    source: 'what nobody looked at is not known',
    needs: ['openSettings'],
    judge: (f) => (f.openSettings.length > 0 ? 'unknown' : 'ok'),
    // what is left stands in the list itself, and as the next step: a finding for each camera would only hide others
    when: {},
    why: 'Most hours on a site are lost to a switch that somebody took for granted.',
  }),
  ...SEEN.map(seenRule),
  rule({
    id: 'prepare.login-off',
    question: 'Was it ticked that it asks for no login?',
    source: 'least right that serves [A]',
    needs: ['settings'],
    asks: (f) => isTicked(f.settings, 'login-on', false),
    isTight: () => true,
    severity: 'fix',
    title: () => 'It was ticked that it asks for no login',
    because: () => 'Everybody on the network sees its picture.',
    do: ['Switch the login of the stream on, and tick it anew.'],
    why: 'A guest’s phone is on the network too.',
  }),
  rule({
    id: 'prepare.sound-unasked',
    question: 'Does it send sound that nobody asked for?',
    source: 'the law is stricter about sound; local advice counts [A]',
    needs: ['settings', 'soundWanted'],
    asks: (f) =>
      isTicked(f.settings, 'sound', true) ||
      (f.settings?.some((one) => one.id === 'sound' && one.seen === true) ?? false),
    isTight: (f) => !f.soundWanted,
    severity: 'watch',
    title: () => 'It sends sound, and nobody asked for it',
    because: () => 'The need of its place names no sound.',
    do: ['Switch the sound off, or say in its need that it is wanted and that consent was asked for.'],
    why: 'Recording what people say needs more consent than recording what they do.',
  }),
  rule({
    id: 'prepare.key-frame-long',
    question: 'Do key frames come often enough for what it is used for?',
    source: 'longest wait for a key frame that a use bears, twice over [A]',
    needs: ['keyFrames'],
    asks: (f) => (f.keyFrames?.length ?? 0) > 0,
    isTight: (f) => f.keyFrames.some(isLong),
    severity: 'watch',
    title: () => 'Its key frames are far apart for what it is used for',
    because: (f) =>
      f.keyFrames
        .filter(isLong)
        .map(
          ({ stream, seconds, wantedS, how }) =>
            `${stream}: every ${seconds.toFixed(1)} s (${how}), ${wantedS} s would serve.`,
        )
        .join(' '),
    do: ['Set a key frame every so many seconds at the camera.'],
    mends: (_, offers) => offers.keyFrames(),
    why: 'Until the next one nothing is shown: a viewer stays dark, a recording begins late.',
  }),
] as const;

const isLong = ({ seconds, wantedS }: PrepareFacts['keyFrames'][number]): boolean => seconds > 2 * wantedS * (1 + 1e-6);
