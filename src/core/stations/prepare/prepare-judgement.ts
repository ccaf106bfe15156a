import { assumed } from '../../assumptions/assumptions.ts';
import { STRONG_BITS, WEAK_BITS } from '../../auth/secret-maker.ts';
import { merged } from '../../base/merged.ts';
import { gigabytes, kilobits } from '../../base/units.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Facts } from '../../findings/rule.ts';
import { type HeatRun, minutesTo } from '../../old-phone/heat.ts';
import { drawersOf } from '../../site/drawers.ts';
import type { SiteView } from '../../site/site-view.ts';
import { cardLoopHours } from '../../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';
import { firmwareFacts } from './firmware-facts.ts';
import { heatOfOldPhone } from './old-phone-heat.ts';
import type { AccountFacts, OldPhoneFacts, PrepareFacts, SettingFacts } from './prepare-facts.ts';
import { isKnown, type Setting, settingsOf } from './settings.ts';

/** Everything that is worked out about how one camera is prepared. */
export interface PrepareJudgement {
  readonly facts: Facts<PrepareFacts>;
  readonly settings: readonly Setting[];
  readonly heat: HeatRun | null;
}

/** Names of accounts that devices come with [A]. */
const FACTORY_USERS = ['admin', 'administrator', 'root', 'user', 'guest', 'default', 'service', 'supervisor'];

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
    ...(longest !== null && length > longest ? [`${name} takes at most ${longest} characters`] : []),
    // which of them it is would tell a sign of the secret
    ...(signs.some((sign) => refused.includes(sign))
      ? [`${name} does not take the characters ${[...refused].join(' ')}`]
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

const orAbsent = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

function oldPhoneFacts(camera: Camera, view: SiteView): Facts<OldPhoneFacts> {
  if (camera.kind !== 'handset') return { isOldPhone: false };
  const { handset, need } = camera;
  const { assumptions } = view.site;
  const heat = heatOfOldPhone(camera, view);
  const warm = assumed(assumptions, 'power.cell-warm');
  const roomC = orAbsent(handset?.roomC);
  const [main] = camera.streams;
  const rate = main ? view.factsOf(main).bitrateKbps?.value : undefined;
  const light = view.modelOf(camera)?.light?.kind;
  const loopGB = handset?.loopGB ?? null;
  return {
    isOldPhone: true,
    steadyC: heat?.run.steadyC,
    isHeatedElsewhere: heat?.isHeatedElsewhere,
    minutesToWarm: heat && roomC !== undefined ? minutesTo(heat.run, roomC, warm) : undefined,
    oldPhoneW: heat?.run.watts,
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
    heat: camera.kind === 'handset' ? (heatOfOldPhone(camera, view)?.run ?? null) : null,
    facts: merged(
      accountFacts(camera, view, settings),
      settingFacts(camera, view, settings),
      firmwareFacts(camera, view, settings),
      oldPhoneFacts(camera, view),
    ),
  };
}
