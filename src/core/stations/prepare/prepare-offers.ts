import { assumed } from '../../assumptions/assumptions.ts';
import { bytes, gigabytes, kilobits } from '../../base/units.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { type OldPhone, UNSAID_OLD_PHONE } from '../../document/chapters/cameras/old-phone.ts';
import { type PlannedCard, type Reflash, UNSAID_REFLASH } from '../../document/chapters/cameras/reflash.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import { partitionWithin } from '../../firmware/memory-card.ts';
import { OPTION_WORDS, OPTIONS } from '../../firmware/options.ts';
import { heatRun } from '../../old-phone/heat.ts';
import type { SiteView } from '../../site/site-view.ts';
import { cardLoopHours } from '../../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';
import { decisionOf } from './firmware-facts.ts';
import { bodyAsRead, loadOf } from './old-phone-heat.ts';
import { sayHours } from './old-phone-rules.ts';
import { ownUser } from './own-user.ts';
import type { PrepareOffers } from './prepare-facts.ts';
import { settingsOf } from './settings.ts';

type Mends = readonly Mend<SiteCommand>[];

/** [A] A charge held here keeps a cell cool and long. */
const CHARGE_LIMIT_PERCENT = 80;
/** Frames a second that are worth a try, most first. */
const FEWER_FRAMES = [10, 5, 2] as const;

export function prepareOffers(view: SiteView, camera: Camera): PrepareOffers {
  const { site } = view;
  const cameraId = camera.id;
  const guide = view.modelOf(camera)?.reflash ?? null;
  const ofReflash = (text: string, change: Partial<Reflash>): Mend<SiteCommand> => ({
    text,
    command: { kind: 'setReflash', cameraId, reflash: { ...UNSAID_REFLASH, ...camera.reflash, ...change } },
  });
  const ofCard = (change: (card: PlannedCard) => Mend<SiteCommand> | null): Mends => {
    const card = camera.reflash?.card;
    const mend = card && change(card);
    return mend ? [mend] : [];
  };
  const ofOldPhone = (text: string, change: Partial<OldPhone>): Mend<SiteCommand> => ({
    text,
    command: { kind: 'setHandset', cameraId, handset: { ...UNSAID_OLD_PHONE, ...camera.handset, ...change } },
  });
  return {
    ownName: () => {
      const { account } = camera;
      if (!account) return [];
      const user = ownUser(site, camera);
      return [{ text: `Call it ${user}`, command: { kind: 'setAccount', cameraId, account: { ...account, user } } }];
    },
    keyFrames: () => {
      const planned = settingsOf(camera, view).flatMap(({ id, subject, wanted }) => {
        const stream = camera.streams.find((one) => subject.endsWith(`:${one.id}`));
        const fps = stream && view.factsOf(stream).fps?.value;
        if (id !== 'key-frame' || !stream || typeof wanted !== 'number' || !fps) return [];
        const gopFrames = Math.max(1, Math.round(wanted * fps));
        return gopFrames === stream.gopFrames ? [] : [{ ...stream, gopFrames }];
      });
      if (planned.length === 0) return [];
      const said = planned.map(({ label, gopFrames }) => `every ${gopFrames} frames for ${label}`).join(', ');
      return [
        {
          text: `Plan a key-frame interval of ${said}`,
          command: {
            kind: 'many',
            what: `${camera.name}: key-frame interval planned`,
            commands: planned.map((stream) => ({ kind: 'changeStream', cameraId, stream })),
          },
        },
      ];
    },
    decisions: () => {
      const now = camera.reflash?.decision ?? null;
      const { scored, best } = decisionOf(camera, view, 'unknown');
      return [best, ...OPTIONS.filter((option) => option !== best)]
        .filter((option) => option !== now && (scored.find((one) => one.option === option)?.vetoes.length ?? 0) === 0)
        .map((decision) => ofReflash(`Decide to ${OPTION_WORDS[decision]}`, { decision }));
    },
    partition: () =>
      ofCard((card) => {
        const { sizeMiB, fits } = partitionWithin(bytes(card.bytes), guide?.limitGiB ?? null);
        return fits
          ? ofReflash(`Make the partition ${sizeMiB} MiB`, { card: { ...card, partitionMiB: sizeMiB } })
          : null;
      }),
    fileSystem: () =>
      ofCard((card) =>
        guide && guide.fileSystem !== card.fileSystem
          ? ofReflash(`Format it ${guide.fileSystem}`, { card: { ...card, fileSystem: guide.fileSystem } })
          : null,
      ),
    fileName: () =>
      ofCard((card) =>
        guide && guide.imageName !== ''
          ? ofReflash(`Call the file ${guide.imageName}`, { card: { ...card, fileName: guide.imageName } })
          : null,
      ),
    cooler: () => coolerOffers(view, camera, ofOldPhone),
    screenOff: () => [ofOldPhone('Set its screen to off', { screen: 'off' })],
    soundOff: () => [ofOldPhone('Switch its audio off', { sendsSound: false })],
    localWay: () => [ofOldPhone('Use a server on the phone', { way: 'local' })],
    backLens: () => [ofOldPhone('Use the rear lens', { lens: 'back' })],
    loopWanted: () => {
      const [main] = camera.streams;
      const rate = main && view.factsOf(main).bitrateKbps?.value;
      const loopGB = camera.handset?.loopGB ?? null;
      if (loopGB === null || !rate) return [];
      const hours = cardLoopHours(gigabytes(loopGB), STORAGE_ASSUMPTIONS.usableFraction, kilobits(rate));
      const loopHoursWanted = Math.floor(hours / 1.2);
      return loopHoursWanted >= 1 ? [ofOldPhone(`Accept ${sayHours(loopHoursWanted)}`, { loopHoursWanted })] : [];
    },
  };
}

/** What makes a handset cooler, the least loss first: each with where it ends up. */
function coolerOffers(
  view: SiteView,
  camera: Camera,
  ofOldPhone: (text: string, change: Partial<OldPhone>) => Mend<SiteCommand>,
): Mends {
  const { handset, feed } = camera;
  const load = loadOf(camera, view);
  const cameraId = camera.id;
  if (!handset || !load || handset.mount === null || handset.roomC === null) return [];
  const { mount, roomC } = handset;
  const { body } = bodyAsRead(camera, view);
  const warmC = assumed(view.site.assumptions, 'power.cell-warm');
  let isEnough = false;
  const to = (change: Partial<typeof load>, at = mount): string => {
    const { steadyC } = heatRun({ ...load, ...change }, roomC, at, body);
    isEnough ||= steadyC <= warmC;
    return `: ${Math.round(steadyC)} °C`;
  };
  const offers: Mend<SiteCommand>[] = [];
  if (handset.screen !== 'off')
    offers.push(ofOldPhone(`Set its screen to off${to({ screen: 'off' })}`, { screen: 'off' }));
  if (feed && !load.isChargeLimited)
    offers.push({
      text: `Limit its charge to ${CHARGE_LIMIT_PERCENT} %${to({ isChargeLimited: true })}`,
      command: { kind: 'setFeed', cameraId, feed: { ...feed, charge: { limitPercent: CHARGE_LIMIT_PERCENT } } },
    });
  if (mount === 'closed') offers.push(ofOldPhone(`Put it in the open${to({}, 'open')}`, { mount: 'open' }));
  if (mount !== 'metal') offers.push(ofOldPhone(`Put it on metal${to({}, 'metal')}`, { mount: 'metal' }));
  // Several at once, only where nothing alone is enough.
  const [main] = camera.streams;
  for (const fps of isEnough ? [] : FEWER_FRAMES)
    if (main && feed && fps < load.fps)
      offers.push({
        text: `Screen off, charge limited, on metal, ${fps} fps${to({ screen: 'off', isChargeLimited: true, fps }, 'metal')}`,
        command: {
          kind: 'many',
          what: `${camera.name}: all measures against heat`,
          commands: [
            { kind: 'setHandset', cameraId, handset: { ...handset, screen: 'off', mount: 'metal' } },
            { kind: 'setFeed', cameraId, feed: { ...feed, charge: { limitPercent: CHARGE_LIMIT_PERCENT } } },
            { kind: 'changeStream', cameraId, stream: { ...main, fps } },
          ],
        },
      });
  return offers;
}
