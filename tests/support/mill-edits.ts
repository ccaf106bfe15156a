import fc from 'fast-check';
import type { ReflashStep } from '../../src/core/document/chapters/journal/prepare-quantity.ts';
import { readingOf } from '../../src/core/document/chapters/journal/reading.ts';
import { emptyModel } from '../../src/core/document/chapters/models/model-fields.ts';
import type { SiteCommand } from '../../src/core/document/site-commands.ts';
import { airSubject, cameraSubject, gearSubject } from '../../src/core/document/subject.ts';
import { CAMERA_SETTINGS } from '../../src/core/stations/prepare/settings.ts';
import { alderMill } from '../../src/standins/alder-mill.ts';
import { COOL, READY } from './prepare-sites.ts';
import { AT, probed, report } from './sites.ts';

export const MILL = alderMill(AT);
const one = <T>(items: readonly T[]): fc.Arbitrary<T> => fc.constantFrom(...items);
const cameras = one(MILL.cameras);
const URL = 'rtsp://10.77.4.21/live/main';

/** Commands that touch what verdicts rest on, each of a thing that the demo has. */
export const millEdit: fc.Arbitrary<SiteCommand> = fc.oneof(
  fc
    .tuple(cameras, one(MILL.models))
    .map(([{ id }, model]): SiteCommand => ({ kind: 'chooseModel', cameraId: id, modelId: model.id })),
  fc
    .tuple(one(MILL.models), fc.option(fc.integer({ min: 1, max: 4 })))
    .map(([model, sessions]): SiteCommand => ({ kind: 'putModel', model: { ...model, sessions } })),
  fc.tuple(one(MILL.models), fc.option(fc.integer({ min: 1, max: 40 }))).map(
    ([model, dayW]): SiteCommand => ({
      kind: 'putModel',
      model: { ...model, power: { ...model.power, dayW, nightW: dayW } },
    }),
  ),
  one(MILL.models).map(
    ({ id, maker, model }): SiteCommand => ({ kind: 'putModel', model: emptyModel(id, maker, model) }),
  ),
  one(MILL.links).map((link): SiteCommand => ({ kind: 'putLink', link: { ...link, route: null, lengthM: null } })),
  fc.tuple(cameras, cameras).map(([{ id }, { need }]): SiteCommand => ({ kind: 'setNeed', cameraId: id, need })),
  fc.tuple(cameras, fc.integer({ min: 0, max: 60 })).map(
    ([{ id, mounting }, tiltDownDeg]): SiteCommand => ({
      kind: 'setMounting',
      cameraId: id,
      mounting: mounting && { ...mounting, tiltDownDeg },
    }),
  ),
  fc.tuple(cameras, cameras).map(([{ id }, { feed }]): SiteCommand => ({ kind: 'setFeed', cameraId: id, feed })),
  fc.tuple(one(MILL.gear), fc.integer({ min: 5, max: 90 })).map(
    ([gear, budgetW]): SiteCommand => ({
      kind: 'putGear',
      gear: gear.kind === 'switch' ? { ...gear, budgetW } : { ...gear, name: `${gear.name} ${budgetW}` },
    }),
  ),
  fc
    .tuple(one(MILL.links), fc.integer({ min: 1, max: 150 }))
    .map(([link, lengthM]): SiteCommand => ({ kind: 'putLink', link: { ...link, route: null, lengthM } })),
  fc
    .tuple(one(MILL.links), one(MILL.gear))
    .map(([link, { id }]): SiteCommand => ({ kind: 'putLink', link: { ...link, from: gearSubject(id) } })),
  fc
    .tuple(cameras, fc.integer({ min: 0, max: 40 }))
    .map(([{ id }, xM]): SiteCommand => ({ kind: 'place', subject: cameraSubject(id), position: { xM, yM: 10 } })),
  fc
    .integer({ min: -60, max: 66 })
    .map((latitudeDeg): SiteCommand => ({ kind: 'setSky', sky: { ...MILL.sky, latitudeDeg } })),
  fc.integer({ min: 1, max: 9 }).map(
    (tenths): SiteCommand => ({
      kind: 'setAssumption',
      id: 'optics.dark-ground',
      said: 'optics.dark-ground',
      value: tenths / 10,
    }),
  ),
  fc.tuple(one(MILL.destinations), fc.integer({ min: 1, max: 90 })).map(
    ([destination, retentionDays]): SiteCommand => ({
      kind: 'changeDestination',
      destination: { ...destination, retentionDays, codecs: retentionDays % 2 ? ['H264'] : [] },
    }),
  ),
  fc.tuple(cameras, one(MILL.destinations), fc.uuid()).map(
    ([{ id, streams }, destination, tap]): SiteCommand => ({
      kind: 'addTap',
      judged: '',
      tap: {
        id: tap,
        cameraId: id,
        streamId: streams[0]?.id ?? '',
        destinationId: destination.id,
        use: 'record',
        protocol: 'rtsp',
        schedule: { mode: 'continuous' },
      },
    }),
  ),
  fc
    .tuple(cameras, fc.integer({ min: 200, max: 9000 }), fc.boolean())
    .map(
      ([{ id, streams }, kbps, fails]): SiteCommand =>
        probed(id, report(fails ? { cause: 'not-found' } : { kbps }), URL, streams[0]?.id),
    ),
  fc
    .tuple(cameras, fc.integer({ min: -90, max: -40 }))
    .map(([{ id }, dbm]) =>
      readingOf(cameraSubject(id), airSubject('gear:hall-ap', cameraSubject(id)), 'signalDbm', dbm > -50 ? null : dbm),
    ),
  fc
    .tuple(cameras, fc.constantFrom('10.77.4.21', '10.77.4.99', ''))
    .map(([{ id }, host]): SiteCommand => ({ kind: 'setAddress', cameraId: id, host, port: 554 })),
  // how it is prepared
  fc.tuple(cameras, fc.constantFrom('admin', 'View', 'view', 'a b', 'x@y.example', '')).map(
    ([{ id }, user]): SiteCommand => ({
      kind: 'setAccount',
      cameraId: id,
      account: user === '' ? null : { user, secretRef: `secret-${id}` },
    }),
  ),
  fc.tuple(cameras, fc.option(partsOf(READY)), fc.option(partsOf(READY.card ?? {}))).map(
    ([{ id }, change, card]): SiteCommand => ({
      kind: 'setReflash',
      cameraId: id,
      reflash: change && { ...READY, ...change, card: READY.card && { ...READY.card, ...card } },
    }),
  ),
  fc.tuple(cameras, fc.option(partsOf(COOL)), fc.integer({ min: 10, max: 44 })).map(
    ([{ id }, change, roomC]): SiteCommand => ({
      kind: 'setHandset',
      cameraId: id,
      handset: change && { ...COOL, ...change, roomC },
    }),
  ),
  fc.tuple(cameras, fc.constantFrom(...CAMERA_SETTINGS), fc.constantFrom(true, false, 554, 'H264')).map(
    ([{ id }, setting, value]): SiteCommand => ({
      kind: 'recordSetting',
      cameraId: id,
      subject: cameraSubject(id),
      setting,
      said: setting,
      value,
      by: 'hand',
    }),
  ),
  fc
    .tuple(
      cameras,
      fc.constantFrom<ReflashStep>('begin:onward', 'begin:back', 'next', 'taken', 'usual', 'cut', 'again'),
    )
    .map(([{ id }, told]): SiteCommand => ({ kind: 'recordReflashStep', cameraId: id, told, said: told, by: 'hand' })),
  fc.tuple(cameras, fc.constantFrom('mini_open.bin', 'MINI.bin'), fc.constantFrom('a', 'c')).map(
    ([{ id }, fileName, sign]): SiteCommand => ({
      kind: 'recordReadBack',
      cameraId: id,
      fileName,
      sha256: sign.repeat(64),
      bytes: 7_340_032,
    }),
  ),
);

/** Some fields of a thing as they are before anybody said anything, or as they are when all is said. */
function partsOf<T extends object>(whole: T): fc.Arbitrary<Partial<T>> {
  const names = Object.keys(whole) as (keyof T)[]; // its keys
  const unsaid = (value: unknown): unknown => (typeof value === 'boolean' ? !value : null);
  const isOptional = (name: keyof T): boolean =>
    !['marks', 'label', 'bytes', 'fileSystem', 'fileName', 'card'].includes(String(name));
  return fc
    .subarray(names.filter(isOptional))
    .map((left) => Object.fromEntries(left.map((name) => [name, unsaid(whole[name])])) as Partial<T>); // names of T
}
