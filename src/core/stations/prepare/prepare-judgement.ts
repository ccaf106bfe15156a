import { assumed } from '../../assumptions/assumptions.ts';
import { merged } from '../../base/merged.ts';
import { bytes, gigabytes, kilobits } from '../../base/units.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { type Reflash, UNSAID_REFLASH } from '../../document/chapters/cameras/reflash.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { cameraSubject } from '../../document/subject.ts';
import { bestKnown } from '../../evidence/best-known.ts';
import type { Facts } from '../../findings/rule.ts';
import { decide } from '../../firmware/decision.ts';
import { fileFits } from '../../firmware/fat.ts';
import { LAMP_ROLE_WORDS, LAMP_ROLES, MARK_WORDS, type ReflashGuide } from '../../firmware/guide.ts';
import { compareNames } from '../../firmware/image-name.ts';
import { looksSame, sayLamp } from '../../firmware/lamp.ts';
import { MARKS } from '../../firmware/marks.ts';
import { ALIGN_MIB, MIB, partitionOf } from '../../firmware/memory-card.ts';
import { WRITES } from '../../firmware/options.ts';
import { compareHash } from '../../firmware/published-hash.ts';
import {
  type HandsetBody,
  type HandsetLoad,
  type HeatRun,
  heatOf,
  heatRun,
  heatRunAt,
  heatScale,
  MOUNTS,
  minutesTo,
  scaledBy,
} from '../../handset/heat.ts';
import { drawersOf } from '../../site/drawers.ts';
import type { SiteView } from '../../site/site-view.ts';
import { cardLoopHours } from '../../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';
import type { AccountFacts, FirmwareFacts, HandsetFacts, PrepareFacts, SettingFacts } from './prepare-facts.ts';
import { runOf } from './reflash-run.ts';
import { isKnown, type Setting, settingsOf } from './settings.ts';

/** Everything that is worked out about how one camera is prepared. */
export interface PrepareJudgement {
  readonly facts: Facts<PrepareFacts>;
  readonly settings: readonly Setting[];
  readonly heat: HeatRun | null;
}

/** Names of accounts that devices come with [A]. */
const FACTORY_USERS = ['admin', 'administrator', 'root', 'user', 'guest', 'default', 'service', 'supervisor'];

/** [A] Bits from which nobody guesses a secret whose login was overheard, and below which it is done in an hour. */
const STRONG_BITS = 64;
const WEAK_BITS = 45;

/** All names of accounts by their small letters: a name is looked up, not searched for. */
const namesOf = ({ site }: SiteView): ReadonlyMap<string, ReadonlySet<string>> => {
  const names = new Map<string, Set<string>>();
  for (const { account } of site.cameras) {
    if (!account) continue;
    const lower = account.user.toLowerCase();
    const known = names.get(lower);
    if (known) known.add(account.user);
    else names.set(lower, new Set([account.user]));
  }
  return names;
};

function accountFacts(camera: Camera, view: SiteView, settings: readonly Setting[]): Facts<AccountFacts> {
  const { account, adminAccount } = camera;
  const model = view.modelOf(camera);
  const hasAccount = account !== null && (account.user !== '' || account.secretRef !== '');
  const secret = view.traitsOf(account);
  const user = account?.user;
  return {
    hasAccount,
    isOpen: settings.find(({ id }) => id === 'login-on')?.seen === false,
    user: hasAccount ? user : undefined,
    adminUser: adminAccount && adminAccount.user !== '' ? adminAccount.user : undefined,
    factoryUsers: model?.factoryLogin ? [...FACTORY_USERS, model.factoryLogin.user] : FACTORY_USERS,
    caseApart: user ? [...(view.once(namesOf).get(user.toLowerCase()) ?? [])].filter((other) => other !== user) : [],
    secret,
    refusedBy: secret ? refusedBy(camera, view, model, secret) : undefined,
    strongBits: STRONG_BITS,
    weakBits: WEAK_BITS,
  };
}

function refusedBy(
  camera: Camera,
  view: SiteView,
  model: Model | undefined,
  { length, signs }: AccountFacts['secret'],
): readonly string[] {
  const takers = [
    ...(model ? [{ name: 'the camera', limits: model.secretLimits }] : []),
    ...drawersOf(camera, view).map(({ name, secretLimits }) => ({ name, limits: secretLimits })),
  ];
  return takers.flatMap(({ name, limits: { longest, refused } }) => [
    ...(longest !== null && length > longest ? [`${name} takes ${longest} signs at most`] : []),
    // which of them it is would tell a sign of the secret
    ...(signs.some((sign) => refused.includes(sign))
      ? [`${name} takes none of the signs ${[...refused].join(' ')}`]
      : []),
  ]);
}

function settingFacts(camera: Camera, view: SiteView, settings: readonly Setting[]): Facts<SettingFacts> {
  return {
    settings,
    openSettings: settings.filter((one) => !isKnown(one)).map(({ label }) => label),
    soundWanted: camera.need ? camera.need.sound !== 'none' : false,
    keyFrames: settings.flatMap((one): SettingFacts['keyFrames'] => {
      if (one.id !== 'key-frame' || typeof one.wanted !== 'number') return [];
      const stream = camera.streams.find(({ id }) => one.subject.endsWith(`:${id}`));
      if (!stream) return [];
      const fps = view.factsOf(stream).fps?.value ?? null;
      const planned = stream.gopFrames !== null && fps !== null ? stream.gopFrames / fps : null;
      const ticked = typeof one.ticked?.value === 'number' ? one.ticked.value : null;
      const seen = typeof one.seen === 'number' ? one.seen : null;
      const seconds = seen ?? ticked ?? planned;
      const how = seen !== null ? 'measured' : ticked !== null ? 'ticked' : 'planned';
      return seconds === null ? [] : [{ stream: stream.label, seconds, wantedS: one.wanted, how }];
    }),
  };
}

/** A camera whose card says that it gives no stream as it is, and that nobody has seen give one. */
function needsFirmware(model: Model | undefined, settings: readonly Setting[]): boolean {
  const isSeen = settings.some(({ id, seen }) => id === 'stream-on' && seen === true);
  return !isSeen && (model?.localStream === 'after-reflash' || model?.localStream === 'account-only');
}

export const hasGuide = (model: Model | undefined): boolean =>
  model?.reflash !== undefined && model.reflash !== null && model.reflash.imageName !== '';

/** What the decision is made from. */
export function decisionOf(camera: Camera, view: SiteView, picture: Verdict) {
  const model = view.modelOf(camera);
  const reflash = camera.reflash ?? UNSAID_REFLASH;
  return decide({
    givesStream:
      model?.localStream === undefined || model.localStream === null
        ? null
        : model.localStream !== 'after-reflash' && model.localStream !== 'account-only',
    picture,
    lost: model?.lostWithoutAccount?.length ?? null,
    hasSideBranch: model?.hasSideBranch ?? null,
    wayBack: reflash.backImage ? 'stored' : reflash.isBackGivenUp ? 'accepted' : null,
    hasRescue: reflash.hasRescue,
    marksKnown: MARKS.every((mark) => reflash.marks[mark].trim() !== ''),
    isOwn: reflash.isOwn,
    isOnlyOne: reflash.isOnlyOne,
    hasMainsInside: reflash.hasMainsInside,
  });
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const orUnsaid = (text: string): string | undefined => (text.trim() === '' ? undefined : text.trim());

function imageFacts({ marks, image, backImage, label }: Reflash): Facts<FirmwareFacts> {
  if (!image) return { hasImage: false };
  const known = MARKS.filter((mark) => marks[mark].trim() !== '' && image.marks[mark].trim() !== '');
  return {
    hasImage: true,
    marksApart: known
      .filter((mark) => !same(marks[mark], image.marks[mark]))
      .map((mark) => `${MARK_WORDS[mark]} ${marks[mark]} here, ${image.marks[mark]} in the image`),
    marksUnknown: MARKS.filter((mark) => !known.includes(mark)).map((mark) => MARK_WORDS[mark]),
    labelVersion: orUnsaid(label.version),
    imageRev: orUnsaid(image.hardwareRev),
    imageVersion: orUnsaid(image.version),
    imageHash: compareHash(image.sha256, image.published),
    imageBytes: image.bytes,
    backHash: backImage ? compareHash(backImage.sha256, backImage.published) : undefined,
    isSameImage: backImage?.sha256 === image.sha256,
  };
}

function cardFacts({ card, image }: Reflash, guide: ReflashGuide | null): Facts<FirmwareFacts> {
  if (!card) return { hasCard: false };
  const partition = partitionOf(bytes(card.bytes), ALIGN_MIB, card.partitionMiB);
  return {
    hasCard: true,
    partitionFits: partition.fits,
    partitionMiB: partition.sizeMiB,
    limitGiB: guide?.limitGiB ?? undefined,
    fileSystem: card.fileSystem,
    fileSystemWanted: guide?.fileSystem,
    imageFitsCard: image ? fileFits(image.bytes, card.fileSystem) && image.bytes <= partition.sizeMiB * MIB : undefined,
    nameWanted: guide?.imageName,
    nameOnCard: card.fileName,
    nameVerdict: guide ? compareNames(guide.imageName, card.fileName) : undefined,
  };
}

function readBackOf(camera: Camera, view: SiteView, guide: ReflashGuide | null): FirmwareFacts['readBack'] | undefined {
  const { image, card } = camera.reflash ?? UNSAID_REFLASH;
  const known = view.index.get(cameraSubject(camera.id));
  const fileName = known?.get('card.fileName')?.at(-1)?.value;
  const sha256 = known?.get('card.sha256')?.at(-1)?.value;
  if (!image || !card || typeof fileName !== 'string') return undefined;
  return {
    isSame: sha256 === image.sha256,
    nameVerdict: compareNames(guide?.imageName ?? card.fileName, fileName),
    fileName,
  };
}

function firmwareFacts(camera: Camera, view: SiteView, settings: readonly Setting[]): Facts<FirmwareFacts> {
  const model = view.modelOf(camera);
  const needs = needsFirmware(model, settings);
  const { reflash } = camera;
  const told = runOf(view.index, camera);
  if (!reflash && !needs && !told) return { needsFirmware: false };
  const decided = reflash ?? UNSAID_REFLASH;
  const writes = decided.decision !== null && WRITES.has(decided.decision);
  const { scored, best } = decisionOf(camera, view, 'unknown');
  const guide = model?.reflash ?? null;
  const own = {
    needsFirmware: needs,
    decision: decided.decision,
    best,
    writes,
    vetoes: scored.find(({ option }) => option === decided.decision)?.vetoes ?? [],
    hasBack: decided.backImage !== null,
    isBackGivenUp: decided.isBackGivenUp,
    hasGuide: hasGuide(model),
    labelRev: orUnsaid(decided.label.hardwareRev),
    cardRev: orUnsaid(model?.hardwareRev ?? ''),
    readBack: readBackOf(camera, view, guide),
    isRehearsed: bestKnown(view.index, cameraSubject(camera.id), 'reflash.rehearsed.onward') !== null,
    phase: told?.run.phase,
    sameLamps: guide ? alikeLamps(guide) : [],
  };
  return merged(own, imageFacts(decided), cardFacts(decided, guide));
}

function alikeLamps({ lamps }: ReflashGuide): readonly string[] {
  return LAMP_ROLES.flatMap((role, at) =>
    LAMP_ROLES.slice(at + 1)
      .filter((other) => looksSame(lamps[role], lamps[other]))
      .map((other) => `“${LAMP_ROLE_WORDS[role]}” and “${LAMP_ROLE_WORDS[other]}” are both ${sayLamp(lamps[role])}`),
  );
}

/** Thermal figures as the site assumes them. */
const bodyOf = ({ site: { assumptions } }: Pick<SiteView, 'site'>): HandsetBody => ({
  kelvinPerWatt: {
    open: assumed(assumptions, 'handset.open'),
    metal: assumed(assumptions, 'handset.metal'),
    closed: assumed(assumptions, 'handset.closed'),
  },
  joulePerKelvin: assumed(assumptions, 'handset.capacity'),
});

/** What a handset does, from its largest stream in use and how it is kept; `null` while its size is not known. */
export function loadOf(camera: Camera, view: SiteView): HandsetLoad | null {
  const sized = camera.streams.flatMap((stream) => {
    const { width, height, fps } = view.factsOf(stream);
    // frames as planned: a warm handset gives fewer, and is warm for those that it was told to give
    const planned = stream.fps ?? fps?.value;
    return width && height && planned ? [{ widthPx: width.value, heightPx: height.value, fps: planned }] : [];
  });
  const [largest] = sized.toSorted((a, b) => b.widthPx * b.heightPx * b.fps - a.widthPx * a.heightPx * a.fps);
  const screen = camera.handset?.screen;
  if (!largest || !screen) return null;
  const limit = camera.feed?.charge?.limitPercent ?? null;
  return { ...largest, screen, isChargeLimited: limit !== null && limit < 100 };
}

/** What a reading of its battery is taken under: without it a warmth says nothing of another load. */
export function readingUnder(camera: Camera, view: SiteView) {
  const { mount = null, roomC = null } = camera.handset ?? {};
  const load = loadOf(camera, view);
  if (mount === null || roomC === null || !load) return [];
  return [
    { quantity: 'under.watts', value: Number(heatOf(load).toFixed(3)) },
    { quantity: 'under.mount', value: mount },
    { quantity: 'under.roomC', value: roomC },
  ] as const;
}

/** How heat leaves this very handset: as assumed, or as it was seen to by the last reading that tells what it was taken under. */
export function bodyAsRead(camera: Camera, view: SiteView): { readonly body: HandsetBody; readonly isRead: boolean } {
  const body = bodyOf(view);
  const known = view.index.get(cameraSubject(camera.id));
  const read = known?.get('batteryC')?.at(-1);
  const then = (quantity: string) => known?.get(quantity)?.findLast(({ takenAt }) => takenAt === read?.takenAt)?.value;
  const [watts, mount, roomC] = [then('under.watts'), then('under.mount'), then('under.roomC')];
  const place = MOUNTS.find((one) => one === mount);
  if (typeof read?.value !== 'number' || typeof watts !== 'number' || typeof roomC !== 'number' || !place)
    return { body, isRead: false };
  const scale = heatScale(heatRunAt(watts, roomC, place, body), roomC, read.value);
  return scale === null ? { body, isRead: false } : { body: scaledBy(body, scale), isRead: true };
}

/** How warm it gets; held to what was read after an hour, where somebody read it. */
export function heatOfHandset(
  camera: Camera,
  view: SiteView,
): { readonly run: HeatRun; readonly isRead: boolean } | null {
  const { mount = null, roomC = null } = camera.handset ?? {};
  const load = loadOf(camera, view);
  if (mount === null || roomC === null || !load) return null;
  const { body, isRead } = bodyAsRead(camera, view);
  return { run: heatRun(load, roomC, mount, body), isRead };
}

const orAbsent = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

function handsetFacts(camera: Camera, view: SiteView): Facts<HandsetFacts> {
  if (camera.kind !== 'handset') return { isHandset: false };
  const { handset, need } = camera;
  const { assumptions } = view.site;
  const heat = heatOfHandset(camera, view);
  const warm = assumed(assumptions, 'power.cell-warm');
  const roomC = orAbsent(handset?.roomC);
  const [main] = camera.streams;
  const rate = main ? view.factsOf(main).bitrateKbps?.value : undefined;
  const light = view.modelOf(camera)?.light?.kind;
  const loopGB = handset?.loopGB ?? null;
  return {
    isHandset: true,
    steadyC: heat?.run.steadyC,
    minutesToWarm: heat && roomC !== undefined ? minutesTo(heat.run, roomC, warm) : undefined,
    handsetW: heat?.run.watts,
    roomC,
    cellWarmC: warm,
    cellHotC: assumed(assumptions, 'power.cell-hot'),
    isHeatRead: heat?.isRead ?? false,
    mount: orAbsent(handset?.mount),
    screen: orAbsent(handset?.screen),
    lens: orAbsent(handset?.lens),
    way: orAbsent(handset?.way),
    startsItself: orAbsent(handset?.startsItself),
    hasFixedMac: orAbsent(handset?.hasFixedMac),
    sendsSound: orAbsent(handset?.sendsSound),
    isHeardNearby: orAbsent(handset?.isHeardNearby),
    atNight: need?.atNight,
    hasLight: light === undefined ? undefined : light !== 'none',
    wantsDetail: need ? need.text !== null || need.level === 'recognise' || need.level === 'identify' : undefined,
    loopHours:
      loopGB !== null && rate !== undefined && rate > 0
        ? cardLoopHours(gigabytes(loopGB), STORAGE_ASSUMPTIONS.usableFraction, kilobits(rate))
        : undefined,
    loopHoursWanted: orAbsent(handset?.loopHoursWanted),
  };
}

export function judgePrepare(camera: Camera, view: SiteView): PrepareJudgement {
  const settings = settingsOf(camera, view);
  return {
    settings,
    heat: camera.kind === 'handset' ? (heatOfHandset(camera, view)?.run ?? null) : null,
    facts: merged(
      accountFacts(camera, view, settings),
      settingFacts(camera, view, settings),
      firmwareFacts(camera, view, settings),
      handsetFacts(camera, view),
    ),
  };
}
