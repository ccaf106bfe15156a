import { clipText } from '../../base/clip.ts';
import { TEXT_LIMITS } from '../../base/limits.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Identity } from '../../document/chapters/cameras/identity.ts';
import { emptyModel } from '../../document/chapters/models/model-fields.ts';
import { nameOfModel } from '../../document/chapters/models/model-name.ts';
import { keptPath } from '../../evidence/kept-path.ts';
import { cardAfter, lessonsOfReading } from '../../evidence/learnt-card.ts';
import type { RememberedReading } from '../../evidence/onvif-evidence.ts';
import { lastSweepOf } from '../../evidence/scans.ts';
import { takeProfile } from '../../evidence/take-profile.ts';
import type { SiteView } from '../../site/site-view.ts';
import { asDeclared, isCardOf, ofChannel, onvifPlanFacts, profileFor } from './onvif-plan-facts.ts';
import type { OnvifPlanOffers } from './onvif-plan-rules.ts';

/** Ports of its address on which the last look through a network found ONVIF. */
export const onvifPortsSeen = ({ site, index }: SiteView, { host }: Camera): readonly number[] =>
  site.networks
    .flatMap(({ id }) => lastSweepOf(index, id)?.hosts ?? [])
    .filter((seen) => seen.host === host)
    .flatMap(({ doors }) => doors.flatMap(({ is, port }) => (is === 'onvif' ? [port] : [])));

/** As many ways to name the model are offered. */
const MOST_MODELS = 3;

/** What could be taken from a device into its plan. */
export function onvifPlanOffers(view: SiteView, camera: Camera, { at, reading }: RememberedReading): OnvifPlanOffers {
  const { site } = view;
  const model = view.modelOf(camera);
  const cameraId = camera.id;
  const facts = onvifPlanFacts(camera, model, reading, { channelsOnSite: 0, seenPorts: onvifPortsSeen(view, camera) });
  return {
    onvifPort: () =>
      facts.seenPort === undefined
        ? []
        : [{ text: `Use port ${facts.seenPort}`, command: { kind: 'setOnvifPort', cameraId, port: facts.seenPort } }],
    paths: () => {
      const stray = camera.streams.find(({ label, path }) => label === facts.strayStream && path === facts.strayPath);
      const profile = stray && profileFor(stray, camera, reading.profiles);
      const path = profile && keptPath(profile);
      if (!stray || !profile || !path) return [];
      return [
        {
          text: `Try ${path}, from profile ${profile.name || profile.token}`,
          command: { kind: 'setStreamPath', cameraId, streamId: stray.id, path },
        },
      ];
    },
    port: () =>
      facts.toldPort === undefined
        ? []
        : [
            {
              text: `Use port ${facts.toldPort}`,
              command: { kind: 'setAddress', cameraId, host: camera.host, port: facts.toldPort },
            },
          ],
    figures: () => {
      const streams = asDeclared(camera, reading);
      return streams.length === 0
        ? []
        : [
            {
              text: 'Plan it as it is set',
              command: {
                kind: 'many',
                commands: streams.map((stream) => ({ kind: 'changeStream', cameraId, stream })),
                what: `${camera.name}: planned as its encoder is set`,
              },
            },
          ];
    },
    streams: () => {
      const left = ofChannel(camera, reading.profiles).filter(
        (profile) => keptPath(profile) !== null && !camera.streams.some(({ path }) => path === keptPath(profile)),
      );
      // each needs another name, so that they are taken one after the other
      const [profile] = left;
      const taken =
        profile &&
        takeProfile(camera, profile, null, () =>
          `${cameraId}-${profile.token}`.slice(0, TEXT_LIMITS.id).replace(/[^\w-]/g, '-'),
        );
      return taken ? [{ text: `Take ${profile.name || profile.token}`, command: taken.command }] : [];
    },
    identity: () => {
      const identity: Identity = {
        mac: reading.network?.mac ?? '',
        serial: (reading.device?.serial ?? '').slice(0, TEXT_LIMITS.serial),
        endpoint: '',
      };
      const words = [identity.serial && `serial ${identity.serial}`, identity.mac]
        .filter((part) => part !== '')
        .join(', ');
      return words === '' ? [] : [{ text: `Keep ${words}`, command: { kind: 'setIdentity', cameraId, identity } }];
    },
    models: () => {
      const cards = site.models.filter((card) => isCardOf(card, reading)).slice(0, MOST_MODELS);
      if (cards.length > 0)
        return cards.map((card) => ({
          text: `Choose the model card of ${nameOfModel(card)}`,
          command: { kind: 'chooseModel', cameraId, modelId: card.id },
        }));
      const { device } = reading;
      if (!device || device.model === '') return [];
      const id = `model-${cameraId}`.slice(0, TEXT_LIMITS.id);
      if (site.models.some((card) => card.id === id)) return [];
      const card = emptyModel(id, clipText(device.make, TEXT_LIMITS.name), clipText(device.model, TEXT_LIMITS.name));
      return [
        {
          text: `Create a model card of ${nameOfModel(card)}`,
          command: {
            kind: 'many',
            commands: [
              {
                kind: 'putModel',
                model: cardAfter(card, lessonsOfReading(card, camera, reading), { from: camera.name, at }),
              },
              { kind: 'chooseModel', cameraId, modelId: id },
            ],
            what: `${camera.name}: model card of ${nameOfModel(card)} created`,
          },
        },
      ];
    },
    card: () => {
      const lessons = model ? lessonsOfReading(model, camera, reading) : [];
      if (!model || lessons.length === 0) return [];
      const source = { from: `${camera.name}, ${site.name}`, at };
      return [
        {
          text: `Add to the model card: ${lessons.map(({ field }) => field).join(', ')}`,
          command: { kind: 'putModel', model: cardAfter(model, lessons, source) },
        },
      ];
    },
    keeping: () => {
      const dhcp = reading.network?.dhcp;
      if (dhcp === null || dhcp === undefined) return [];
      return [
        {
          text: dhcp ? 'Plan a DHCP reservation for it' : 'Plan it as a static address on the device',
          command: { kind: 'setKeeping', cameraId, keeping: dhcp ? 'reservation' : 'static' },
        },
      ];
    },
  };
}
