import { atLeast, type Verdict, worstVerdict } from '../../base/verdict.ts';
import type { LocalStream, Sound } from '../../document/cards/model-card.ts';
import type { Facts } from '../../findings/rule.ts';
import { judgeDetail, readText } from '../../optics/detail-levels.ts';
import type { ChooseFacts } from './choose-facts.ts';
import { hasGap, judgeIngress, judgeLight, judgeNear, judgeWidth } from './judgements.ts';

type F = Facts<ChooseFacts>;

/** One thing that is asked, and how a model answers it: the number, the verdict and its reason. */
export interface Answer {
  readonly said: string;
  readonly verdict: Verdict;
  readonly reason: string;
}
export interface Criterion {
  readonly id: string;
  readonly label: (facts: F) => string;
  /** It may decide between two, and says nothing of whether one serves: nobody asked, or money mends it. */
  readonly isAside?: true;
  /** `null` when the need does not ask for it. */
  readonly answer: (facts: F) => Answer | null;
}

const answer = (said: string, verdict: Verdict, reason: string): Answer => ({ said, verdict, reason });
const NOT_SAID = answer('–', 'unknown', 'The model card does not say.');
/** A number of a view that is wider than the formula is good for says so. */
function within({ isBeyondModel, hfovDeg }: F, given: Answer): Answer {
  if (!isBeyondModel) return given;
  const reason = `${given.reason} ${Math.round(hfovDeg ?? 0)}° is wider than the formula is good for: a guess until it is measured.`;
  return { said: `≈ ${given.said}`, verdict: given.verdict === 'ok' ? 'tight' : given.verdict, reason };
}
/** A face from too high above is short of what its pixels promise. */
function steepened({ wantsFaces, depressionDeg, steepDeg }: F, given: Answer): Answer {
  if (!wantsFaces || depressionDeg === undefined || steepDeg === undefined || depressionDeg <= steepDeg) return given;
  const reason = `${given.reason} It looks ${Math.round(depressionDeg)}° down on faces.`;
  return { ...given, verdict: worstVerdict([given.verdict, 'tight']), reason };
}
const OUT_OF_VIEW = answer('not in view', 'will-not-work', 'It looks past the target: tilt it, or zoom out.');
const metres = (value: number): string => `${value.toFixed(value < 10 ? 1 : 0)} m`;

export const LOCAL_STREAM_WORDS: Readonly<Record<LocalStream, string>> = {
  both: 'RTSP, ONVIF',
  rtsp: 'RTSP',
  onvif: 'ONVIF',
  'account-only': 'account only',
  'after-reflash': 'after a reflash',
};
const SOUND_ORDER: readonly Sound[] = ['none', 'hear', 'talk'];
const SOUND_WORDS: Readonly<Record<Sound, string>> = { none: 'none', hear: 'hears', talk: 'both ways' };
const SUPPLY_FREE_WAYS = ['poe', 'passive', 'solar'] as const;

/** In the order in which one would ask. */
export const CRITERIA: readonly Criterion[] = [
  {
    id: 'detail',
    label: ({ level, distanceM }) => `${level ?? 'see'} at ${distanceM} m`,
    answer: (facts) => {
      const { wantedPxPerM, pxPerM, isInView } = facts;
      if (wantedPxPerM === undefined) return null;
      if (pxPerM === undefined) return NOT_SAID;
      if (isInView === false) return OUT_OF_VIEW;
      const said = `${Math.round(pxPerM)} px/m`;
      const given = answer(said, judgeDetail(pxPerM, wantedPxPerM), `${said}; ${wantedPxPerM} wanted.`);
      return within(facts, steepened(facts, given));
    },
  },
  {
    id: 'text',
    label: ({ charHeightMm }) => `read ${charHeightMm ?? ''} mm letters`,
    answer: (facts) => {
      const { charHeightMm, textPxPerM, isInView } = facts;
      if (charHeightMm === undefined) return null;
      if (textPxPerM === undefined) return NOT_SAID;
      if (isInView === false) return OUT_OF_VIEW;
      const { pxPerChar, verdict } = readText(textPxPerM, charHeightMm);
      const reason = `${pxPerChar.toFixed(1)} px a letter; 20 are read, 12 guessed.`;
      return within(facts, answer(`${pxPerChar.toFixed(0)} px`, verdict, reason));
    },
  },
  {
    id: 'width',
    label: ({ zoneWidthM }) => `${zoneWidthM ?? ''} m wide`,
    answer: (facts) => {
      const { viewWidthM, zoneWidthM, gapDeg = 0 } = facts;
      if (viewWidthM === undefined || zoneWidthM === undefined) return NOT_SAID;
      const verdict = judgeWidth(viewWidthM, zoneWidthM);
      const reason = `It sees ${metres(viewWidthM)} across there.`;
      if (hasGap(gapDeg))
        return within(
          facts,
          answer(
            metres(viewWidthM),
            worstVerdict([verdict, 'tight']),
            `${reason} ${Math.round(gapDeg)}° between its lenses are seen by neither.`,
          ),
        );
      return within(facts, answer(metres(viewWidthM), verdict, reason));
    },
  },
  {
    id: 'near',
    label: ({ zoneFromM }) => `seen from ${zoneFromM ?? 0} m on`,
    answer: ({ seenFromM, zoneFromM }) => {
      if (seenFromM === undefined || zoneFromM === undefined) return NOT_SAID;
      if (!Number.isFinite(seenFromM)) return answer('no ground', 'will-not-work', 'It looks above the ground.');
      return answer(
        metres(seenFromM),
        judgeNear(seenFromM, zoneFromM),
        `The ground is unseen up to ${metres(seenFromM)}.`,
      );
    },
  },
  {
    id: 'night',
    label: () => 'light at night',
    answer: ({ atNight, lightKind, lightReachM, lightRatedM, distanceM }) => {
      if (!atNight) return null;
      if (lightKind === undefined || lightReachM === undefined || distanceM === undefined) return NOT_SAID;
      if (lightKind === 'none') return answer('no light', 'will-not-work', 'It has no light of its own.');
      const rated = lightRatedM ?? lightReachM;
      return answer(
        metres(lightReachM),
        judgeLight(lightReachM, rated, distanceM),
        `${metres(rated)} rated, about ${metres(lightReachM)} over dark ground.`,
      );
    },
  },
  {
    id: 'picture',
    isAside: true,
    label: () => 'picture',
    answer: ({ pictureSize, fps }) =>
      pictureSize === undefined
        ? NOT_SAID
        : answer(
            `${pictureSize}${fps === undefined ? '' : `, ${fps} fps`}`,
            'ok',
            'Pixels of its best lens, frames a second.',
          ),
  },
  {
    id: 'zoom',
    isAside: true,
    label: () => 'optical zoom',
    answer: ({ zoomRange, zoom }) => {
      if (zoomRange === undefined || zoom === undefined) return NOT_SAID;
      const range = zoomRange > 1.001 ? `${zoomRange.toFixed(1)}×` : 'none';
      return answer(
        range,
        'ok',
        zoomRange > 1.001 ? `Set to ${zoom.toFixed(1)}× here.` : 'Digital zoom adds no pixel.',
      );
    },
  },
  {
    id: 'stream',
    label: () => 'stream on this network',
    answer: ({ localStream }) => {
      if (localStream === undefined) return NOT_SAID;
      const verdict =
        localStream === 'account-only' ? 'will-not-work' : localStream === 'after-reflash' ? 'tight' : 'ok';
      return answer(LOCAL_STREAM_WORDS[localStream], verdict, 'Whether a stream is given without the maker’s servers.');
    },
  },
  {
    id: 'codecs',
    label: () => 'every destination takes it',
    answer: ({ sessionsWanted, missedBy, codecs }) => {
      if (!sessionsWanted) return null;
      if (missedBy === undefined || codecs === undefined) return NOT_SAID;
      return missedBy.length > 0
        ? answer(
            `not ${missedBy.map(({ name }) => name).join(', ')}`,
            'will-not-work',
            `It gives ${codecs.join(', ')}.`,
          )
        : answer(codecs.join(', '), 'ok', 'Each takes one of its streams.');
    },
  },
  {
    id: 'sessions',
    label: ({ sessionsWanted }) => `${sessionsWanted ?? 0} draw it at once`,
    answer: ({ sessions, sessionsWanted }) => {
      if (!sessionsWanted) return null;
      if (sessions === undefined) return NOT_SAID;
      return answer(
        String(sessions),
        atLeast(sessions, sessionsWanted + 1, sessionsWanted),
        'One more is wanted to look with.',
      );
    },
  },
  {
    id: 'sub',
    label: () => 'small stream to view',
    answer: ({ wantsSub, hasSub }) => {
      if (!wantsSub) return null;
      if (hasSub === undefined) return NOT_SAID;
      return answer(hasSub ? 'yes' : 'none', hasSub ? 'ok' : 'tight', 'Viewers and detectors draw a small stream.');
    },
  },
  {
    id: 'weather',
    label: () => 'outdoors',
    answer: ({ outdoors, ingress }) => {
      if (!outdoors) return null;
      if (ingress === undefined) return NOT_SAID;
      return answer(`IP${ingress}`, judgeIngress(ingress), 'IEC 60529: dust and water that it keeps out.');
    },
  },
  {
    id: 'sound',
    label: ({ soundWanted }) => (soundWanted === 'talk' ? 'speak through it' : 'sound'),
    answer: ({ soundWanted, sound }) => {
      if (soundWanted === undefined || soundWanted === 'none') return null;
      if (sound === undefined) return NOT_SAID;
      const isEnough = SOUND_ORDER.indexOf(sound) >= SOUND_ORDER.indexOf(soundWanted);
      return answer(
        SOUND_WORDS[sound],
        isEnough ? 'ok' : 'will-not-work',
        'Microphone, or microphone and loudspeaker.',
      );
    },
  },
  {
    id: 'turns',
    label: () => 'turns',
    answer: ({ turnsWanted, panRangeDeg, tiltRangeDeg }) => {
      if (!turnsWanted) return null;
      if (panRangeDeg === undefined) return NOT_SAID;
      return panRangeDeg > 0
        ? answer(`${panRangeDeg}°, ${tiltRangeDeg ?? '–'}°`, 'ok', 'Pan and tilt that it has.')
        : answer('no', 'will-not-work', 'It stands still.');
    },
  },
  {
    id: 'power',
    isAside: true,
    label: () => 'power',
    answer: ({ ways, supplyInBox }) => {
      if (ways === undefined) return NOT_SAID;
      const needsSupply = !ways.some((way) => SUPPLY_FREE_WAYS.some((free) => free === way));
      return answer(
        ways.join(', '),
        needsSupply && supplyInBox === false ? 'tight' : 'ok',
        supplyInBox === undefined
          ? 'Whether a supply is in the box is not known.'
          : supplyInBox
            ? 'A supply is in the box.'
            : 'No supply is in the box.',
      );
    },
  },
  {
    id: 'network',
    isAside: true,
    label: () => 'network',
    answer: ({ wired, bands }) =>
      bands === undefined
        ? NOT_SAID
        : answer(
            [wired ? 'wired' : null, ...bands.map((band) => (band === 'sub-GHz' ? band : `${band} GHz`))]
              .filter(Boolean)
              .join(', '),
            'ok',
            'How it is joined to the network.',
          ),
  },
  {
    id: 'card',
    isAside: true,
    label: () => 'card slot',
    answer: ({ cardMaxGB }) =>
      cardMaxGB === undefined
        ? NOT_SAID
        : answer(cardMaxGB > 0 ? `${cardMaxGB} GB` : 'none', 'ok', 'The largest card that it takes.'),
  },
  {
    id: 'account',
    isAside: true,
    label: () => 'lost without the account',
    answer: ({ lostWithoutAccount }) =>
      answer(
        lostWithoutAccount?.length ? lostWithoutAccount.join(', ') : 'nothing',
        lostWithoutAccount?.length ? 'tight' : 'ok',
        'What the maker’s servers do, and nobody else.',
      ),
  },
  {
    id: 'cost',
    isAside: true,
    label: ({ costYears }) => `${costYears ?? ''} years, all in`,
    answer: ({ allInCost, currency }) =>
      allInCost === undefined
        ? NOT_SAID
        : answer(
            `${currency ?? ''} ${Math.round(allInCost)}`.trim(),
            'ok',
            'Price, a supply where none is in the box, and energy.',
          ),
  },
];

/** One criterion over all candidates. */
export interface CriterionRow {
  readonly id: string;
  readonly label: string;
  readonly answers: readonly Answer[];
  /** The candidates do not fare alike in it. */
  readonly decides: boolean;
}

/** The table of candidates: what sets them apart first, within that in the order of asking. */
export function weigh(candidates: readonly F[]): readonly CriterionRow[] {
  const rows = CRITERIA.flatMap(({ id, label, answer: ask }): CriterionRow[] => {
    const answers = candidates.map(ask);
    if (answers.some((one) => one === null)) return [];
    const given = answers.filter((one) => one !== null);
    const decides = new Set(given.map(({ verdict }) => verdict)).size > 1;
    return [{ id, label: label(candidates[0] ?? {}), answers: given, decides }];
  });
  return [...rows.filter(({ decides }) => decides), ...rows.filter(({ decides }) => !decides)];
}
