import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { READING } from '../../../tests/support/onvif-readings.ts';
import { runs } from '../../../tests/support/runs.ts';
import { AT, camera, mill, report, stamps } from '../../../tests/support/sites.ts';
import { alderMill } from '../../standins/alder-mill.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { heardRecord, probeRecord, readingRecord, sessionsRecord, sweepRecords } from '../evidence/measured-records.ts';
import { rememberedProbe } from '../evidence/remembered-probe.ts';
import { takeProfile } from '../evidence/take-profile.ts';
import { camerasOfList, guessColumns, readListTable } from '../imports/camera-list.ts';
import { lanesOf } from '../lanes/lane.ts';
import { withLoginOut } from '../net/address-login.ts';
import { addressRemarks } from '../net/address-remarks.ts';
import type { OnvifReading } from '../onvif/reading.ts';
import { checkReading } from '../onvif/reading-check.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { unknownHost } from '../scan/seen.ts';
import { badTargetReport } from '../sessions/sessions-types.ts';
import { viewOf } from '../site/site-view.ts';
import { ONVIF_STATION_RULES, onvifMends } from '../stations/tap/onvif-judgement.ts';
import { UNKNOWN_STREAM } from './chapters/cameras/camera.ts';
import { UNSAID_OLD_PHONE } from './chapters/cameras/old-phone.ts';
import { UNSAID_REFLASH } from './chapters/cameras/reflash.ts';
import { UNKNOWN_DESTINATION } from './chapters/destinations/destination-fields.ts';
import { UNMEASURED_LINK } from './chapters/links/link-fields.ts';
import { emptyModel } from './chapters/models/model-fields.ts';
import { UNKNOWN_NETWORK } from './chapters/networks/network-fields.ts';
import { UNKNOWN_REACH } from './chapters/reach/reach.ts';
import { NO_EDITS, noteEdit, redoEdit, undoEdit } from './edit-history.ts';
import { emptySite } from './empty-site.ts';
import type { Site } from './site.ts';
import { applyCommand, type SiteCommand } from './site-commands.ts';
import { readSite, readSiteFile, writeSiteFile } from './site-file.ts';
import { refusalOf } from './site-fit.ts';
import { accountFor } from './stream-address.ts';

// The law: whatever a command made, the schema takes. What a camera or a file brought is clipped by the commands; what a
// person or a list brought is refused in words by its way in; and what got past both is told before it is kept.

const LONG = 'x'.repeat(5000);
const LATER = '2026-11-25T12:00:00.000Z';
const COUNT = badTargetReport('', 8);
const words = fc.oneof(
  fc.constantFrom('', LONG, `${LONG}𝄞`, 'constructor', '__proto__', '..', 'a\r\nb', '\u001b[2J\u202e', 'ü𝄞', '\ud800'),
  fc.string({ unit: 'grapheme', maxLength: 30 }),
);
const numbers = fc.oneof(
  fc.constantFrom(0, -1, 1e300, -1e300, Number.NaN, Number.POSITIVE_INFINITY, 1e-300, 65_536, 20_001),
  fc.double(),
  fc.integer(),
);

/** A report as a hostile camera brings it about: every text and number is its own. */
const reports = fc
  .record({ text: words, number: numbers, lost: numbers })
  .map(({ text, number, lost }): ProbeReport => {
    const sound = report();
    const [video] = sound.media;
    if (!video?.measured) throw new Error('a report of a sound stream has a measured picture');
    const measured = { ...video.measured, fps: number, bitrateKbps: number, lossRatio: lost, width: number };
    const declared = { ...video.declared, profile: text, width: number, bitrateKbps: number };
    const findings = [
      { rule: 'probe.closed', severity: 'stop' as const, title: text, because: text, do: [text], why: text },
    ];
    return {
      ...sound,
      verdict: 'fail',
      cause: 'closed',
      server: text,
      findings,
      media: [{ ...video, codec: text, measured, declared }],
    };
  });

const fromOutside: fc.Arbitrary<SiteCommand> = fc.oneof(
  fc
    .record({ given: reports, url: words, probeId: words })
    .map(
      ({ given, url, probeId }): SiteCommand => probeRecord({ streamId: 'sluice-main', url, probeId, report: given }),
    ),
  fc
    .record({ text: words, subject: words.filter((text) => text !== '') })
    .map(({ text, subject }): SiteCommand => ({ kind: 'note', text, subject, logKind: 'site' })),
  fc.record({ text: words, number: numbers }).chain(({ text, number }): fc.Arbitrary<SiteCommand> => {
    const of = { cameraId: 'sluice' } as const;
    const heard = {
      seconds: number,
      changes: number,
      motions: number,
      firstMotionS: number,
      kinds: [],
      lost: number,
      cause: null,
      note: text,
    };
    const turns = { degPerS: number, offsetDeg: number, deadTimeS: number, residualDeg: number };
    const profile = { token: text, name: text, codec: text, width: number, height: number, fps: number };
    return fc.constantFrom<SiteCommand>(
      heardRecord('sluice', text, heard),
      sessionsRecord({
        ...of,
        countId: text,
        host: text,
        report: {
          ...COUNT,
          limit: number,
          firstAlonePerS: number,
          refusedWith: { cause: 'closed', status: number, note: text },
        },
      }),
      { kind: 'recordTurns', ...of, calibrationId: text, turns, velocity: number, measured: number },
      { kind: 'recordHeadTrait', ...of, trait: 'head.stopsLost', value: number },
      { kind: 'recordProfile', ...of, streamId: 'sluice-main', profile },
      readingRecord('sluice', text, { ...READING, note: text }),
    );
  }),
  fc.record({ url: words, by: words, value: words }).map(
    ({ url, by, value }): SiteCommand => ({
      kind: 'recordHandOver',
      tapId: 'tap-1',
      url,
      by,
      refs: Array.from({ length: 60 }, () => ({ name: 'path', value })),
    }),
  ),
  fc.tuple(words, numbers).map(
    ([text, number]): SiteCommand => ({
      kind: 'recordSetting',
      cameraId: 'sluice',
      subject: 'camera:sluice',
      setting: text,
      said: text,
      value: Number.isFinite(number) ? number : text,
      by: text,
    }),
  ),
  words.map(
    (fileName): SiteCommand => ({
      kind: 'recordReadBack',
      cameraId: 'sluice',
      fileName,
      sha256: fileName,
      bytes: 1,
    }),
  ),
  words.map(
    (text): SiteCommand => ({
      kind: 'recordReflashStep',
      cameraId: 'sluice',
      told: 'begin:onward',
      said: text,
      by: text,
    }),
  ),
  fc.record({ text: words, number: numbers, many: fc.integer({ min: 0, max: 300 }) }).chain(({ text, number, many }) =>
    fc.constantFrom(
      ...sweepRecords({
        networkId: 'house',
        sweepId: text,
        range: text,
        isWhole: true,
        calls: number,
        seconds: number,
        hosts: Array.from({ length: many }, () => ({
          ...unknownHost(text),
          mac: text,
          endpoints: [text, text],
          name: text,
          doors: [{ port: 554, is: 'rtsp' as const, server: text, title: text, isSlow: false }],
        })),
      }),
    ),
  ),
  words.map(
    (seen): SiteCommand => ({
      kind: 'recordBenchTest',
      cameraId: 'sluice',
      item: { id: 'picture', said: seen } as never, // any item: the text is what is looked at
      seen,
      by: seen,
    }),
  ),
);

const tapped = (): Site => {
  const network = { ...UNKNOWN_NETWORK, id: 'house', name: 'House', cidr: '10.77.4.0/24' };
  const site = applyCommand(
    { ...mill(), networks: [network] },
    {
      kind: 'addTap',
      judged: 'fits',
      tap: {
        id: 'tap-1',
        cameraId: 'sluice',
        streamId: 'sluice-main',
        destinationId: 'loft',
        use: 'record',
        protocol: 'rtsp',
        schedule: { mode: 'continuous' },
      },
    },
    stamps(),
  );
  return site;
};

const opensAgain = (site: Site): string | null => {
  const stored = readSite(structuredClone(site));
  const filed = readSiteFile(writeSiteFile(site));
  return !stored.ok ? stored.error.message : !filed.ok ? filed.error.message : null;
};

test('what a camera, a note or a hand-over brings never leaves a site that cannot be opened again', () =>
  fc.assert(
    fc.property(fc.array(fromOutside, { minLength: 1, maxLength: 8 }), (commands) => {
      let site = tapped();
      let history = NO_EDITS;
      for (const [at, command] of commands.entries()) {
        const stamp = stamps(`2026-11-25T10:${String(at).padStart(2, '0')}:00.000Z`);
        const after = applyCommand(site, command, stamp);
        expect(refusalOf(site, after)).toBeNull();
        history = noteEdit(history, command, site, after);
        site = after;
      }
      ({ site, history } = undoEdit(site, history, stamps('2026-11-25T11:00:00.000Z')));
      ({ site, history } = redoEdit(site, history, stamps('2026-11-25T11:00:01.000Z')));
      expect(opensAgain(site)).toBeNull();
    }),
    runs(80),
  ));

test('an address that its field keeps is one that the site takes', () =>
  fc.assert(
    fc.property(fc.record({ host: words, port: words, path: words, user: words, secret: words }), (draft) => {
      const remarks = addressRemarks(draft, { networks: [], workedPaths: [] });
      if (Object.values(remarks).some(({ stops }) => stops)) return;
      const login = withLoginOut({ path: draft.path.trim(), user: draft.user, secret: draft.secret });
      if (!login.ok) return;
      const { path, user } = login.value;
      let site = tapped();
      const commands: readonly SiteCommand[] = [
        { kind: 'setAddress', cameraId: 'sluice', host: draft.host.trim(), port: Number(draft.port) },
        { kind: 'setStreamPath', cameraId: 'sluice', streamId: 'sluice-main', path },
        { kind: 'setAccount', cameraId: 'sluice', account: accountFor(user, [path], 'secret-sluice') },
      ];
      for (const [at, command] of commands.entries()) {
        const after = applyCommand(site, command, stamps(`2026-11-25T12:0${at}:00.000Z`));
        expect(refusalOf(site, after)).toBeNull();
        site = after;
      }
    }),
  ));

test('rows that a list keeps are cameras that the site takes', () =>
  fc.assert(
    fc.property(fc.array(fc.tuple(words, words, words, words, words, words), { maxLength: 5 }), (given) => {
      const text = [
        'name,ip,path,user,password,model',
        ...given.map((cells) => cells.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(',')),
      ].join('\n');
      const table = readListTable(text);
      if (!table.ok) return;
      const site = tapped();
      const rows = camerasOfList(table.value, guessColumns(table.value.headings), site);
      const models = rows.flatMap(({ camera: one }, at) =>
        one && one.model !== '' ? emptyModel(`model-${at}`, one.maker, one.model) : [],
      );
      const cameras = rows.flatMap(({ camera: one }, at) =>
        one
          ? camera(`camera-${at}`, {
              name: one.name,
              place: one.place,
              host: one.host,
              ports: { rtsp: one.port },
              account: accountFor(
                one.user,
                one.paths.map(({ path }) => path),
                `secret-${at}`,
              ),
              streams: one.paths.map(({ label, path }) => ({ id: `${at}-${label}`, label, path, ...UNKNOWN_STREAM })),
            })
          : [],
      );
      const after = applyCommand(
        site,
        { kind: 'importCameras', cameras, models, from: LONG, leftOut: 0 },
        stamps(LATER),
      );
      expect(refusalOf(site, after)).toBeNull();
      expect(opensAgain(after)).toBeNull();
    }),
  ));

/** A device that says of itself whatever it likes, as far as a reader lets it. */
const readings = fc
  .record({ text: words, number: numbers, path: fc.oneof(words, fc.constantFrom('/live/main', '/x y', `/${LONG}`)) })
  .chain(({ text, number, path }) => {
    const [first] = READING.profiles;
    const told = {
      ...READING,
      device: { make: text, model: text, firmware: text, serial: text, hardware: text },
      network: { mac: text, dhcp: true, timeServers: [text] },
      profiles: ['a', 'b'].map((token) => ({
        ...first,
        token,
        name: text,
        codec: text,
        width: number,
        fps: number,
        stream: { path, port: number, scheme: 'rtsp', elsewhere: text },
      })),
    } as OnvifReading; // as a file may have it: what reads it decides
    return fc.constant(checkReading(told) === null ? told : READING);
  });

test('what is taken from a device into the plan opens again, whatever the device said', () =>
  fc.assert(
    fc.property(readings, fc.boolean(), (reading, isBare) => {
      const host = { host: reading.host };
      const site = {
        ...emptySite('s', 'S'),
        models: [emptyModel('m', reading.device?.make.slice(0, 80) ?? '', reading.device?.model.slice(0, 80) || 'x')],
        cameras: [camera('sluice', { ...host, modelId: isBare ? null : 'm', keeping: 'static' })],
      };
      const after = applyCommand(site, readingRecord('sluice', 'r', reading), stamps(LATER));
      expect(opensAgain(after)).toBeNull();
      const [one] = after.cameras;
      if (!one) throw new Error('a camera');
      const view = viewOf(after, indexEvidence(after.journal));
      const commands: SiteCommand[] = ONVIF_STATION_RULES.flatMap(({ id }) =>
        onvifMends(one, id, view).map(({ command }) => command),
      );
      for (const profile of reading.profiles)
        for (const into of [null, ...one.streams]) {
          const taken = takeProfile(one, profile, into, () => 'taken');
          if (taken) commands.push(taken.command);
        }
      for (const command of commands) expect(opensAgain(applyCommand(after, command, stamps(AT)))).toBeNull();
    }),
    runs(100),
  ));

// Commands with whatever a caller may have missed: the gate tells apart what opens again from what does not.
const anything: fc.Arbitrary<SiteCommand> = fc
  .record({ text: words, number: numbers, id: words, many: fc.integer({ min: 0, max: 12 }) })
  .chain(({ text, number, id, many }) => {
    const options = Array.from({ length: many }, (_, at) => ({
      id: `option-${at}`,
      name: text,
      school: 'software' as const,
      destinationId: null,
      lines: [{ label: text, price: number, count: 1, everyYears: null, of: null }],
      includedSeats: 0,
      packs: [],
      subscriptionPerMonth: 0,
      loadW: number,
    }));
    const { costing } = emptySite('x', 'x');
    const commands: readonly SiteCommand[] = [
      { kind: 'setCosting', costing: { ...costing, options }, what: text },
      { kind: 'setAddress', cameraId: 'sluice', host: text, port: number },
      { kind: 'setIdentity', cameraId: 'sluice', identity: { mac: text, serial: text, endpoint: text } },
      {
        kind: 'putNetwork',
        network: {
          ...UNKNOWN_NETWORK,
          id,
          name: text,
          cidr: text,
          gateway: text,
          pool: { from: text, to: text },
          dns: Array(many).fill(text),
          ntp: text,
          vlan: number,
          dhcpServers: number,
          permit: text,
        },
      },
      {
        kind: 'setReach',
        what: text,
        reach: {
          ...UNKNOWN_REACH,
          rows: Array.from({ length: many }, () => ({ from: text, to: text, allowed: 'listed' as const })),
          forwards: [{ id, outsidePort: number, host: text, port: number }],
          outsideAddress: text,
        },
      },
      { kind: 'setStreamPath', cameraId: 'sluice', streamId: 'sluice-main', path: text },
      { kind: 'setAccount', cameraId: 'sluice', account: { user: text, secretRef: id } },
      {
        kind: 'addStream',
        cameraId: 'sluice',
        stream: { id, label: text, path: '/x', ...UNKNOWN_STREAM, fps: number },
      },
      { kind: 'addCamera', camera: camera(id === '' ? 'c' : id, { name: text, host: text }) },
      { kind: 'setAssumption', id, said: text, value: number },
      { kind: 'putModel', model: emptyModel(id, text, text) },
      {
        kind: 'putModel',
        model: {
          ...emptyModel(id, text, text),
          channels: number,
          learnedFrom: Array(many).fill({ field: text, said: text, at: text, from: text }),
        },
      },
      { kind: 'setOnvifPort', cameraId: 'sluice', port: number },
      { kind: 'setLine', cameraId: 'sluice', line: 'tunnel' },
      { kind: 'putHeadPreset', cameraId: 'sluice', preset: { id, name: text, token: text, still: text } },
      {
        kind: 'putTour',
        cameraId: 'sluice',
        tour: { id, name: text, stops: Array(many).fill({ presetId: id, dwellS: number }) },
      },
      { kind: 'putGear', gear: { id, name: text, position: null, kind: 'router', price: null, uploadMbps: number } },
      {
        kind: 'putLink',
        link: {
          ...UNMEASURED_LINK,
          id,
          from: 'camera:sluice',
          to: 'destination:loft',
          medium: 'fibre',
          lengthM: number,
        },
      },
      { kind: 'place', subject: 'camera:sluice', position: { xM: number, yM: 0 } },
      { kind: 'setSky', sky: { latitudeDeg: number, clearness: null } },
      { kind: 'setCandidates', cameraId: 'sluice', candidates: Array(many).fill(id) },
      {
        kind: 'changeStream',
        cameraId: 'sluice',
        stream: { id: 'sluice-main', label: text, path: '/x', ...UNKNOWN_STREAM, width: number, height: number },
      },
      {
        kind: 'changeCamera',
        cameraId: 'sluice',
        changed: {
          name: text,
          place: text,
          kind: 'channel',
          channel: number,
          memoryCard: { sizeGB: number, price: number },
        },
      },
      {
        kind: 'addDestination',
        destination: {
          ...UNKNOWN_DESTINATION,
          id,
          name: text,
          kind: 'recorder',
          mostFps: number,
          decodes: number,
          seats: { included: number, packs: Array(many).fill({ seats: number, price: number }) },
        },
      },
      ...options.slice(0, 1).map((option): SiteCommand => ({ kind: 'putOption', option })),
      {
        kind: 'putWall',
        wall: { id, name: text, from: { xM: number, yM: 0 }, to: { xM: 1, yM: number }, material: 'door' },
      },
      { kind: 'changeSite', changed: { name: text, notes: text } },
      { kind: 'setAdminAccount', cameraId: 'sluice', account: { user: text, secretRef: id } },
      { kind: 'setHandset', cameraId: 'sluice', handset: { ...UNSAID_OLD_PHONE, roomC: number, loopGB: number } },
      {
        kind: 'setReflash',
        cameraId: 'sluice',
        reflash: {
          ...UNSAID_REFLASH,
          label: { hardwareRev: text, version: text },
          card: { bytes: number, fileSystem: 'FAT32', partitionMiB: number, fileName: text },
        },
      },
      {
        kind: 'setReflash',
        cameraId: 'sluice',
        reflash: {
          ...UNSAID_REFLASH,
          image: {
            fileName: text,
            archive: id,
            bytes: number,
            sha256: text,
            published: text,
            version: text,
            hardwareRev: text,
            marks: UNSAID_REFLASH.marks,
          },
        },
      },
      {
        kind: 'many',
        what: text,
        commands: Array.from({ length: many }, (_, at) => ({
          kind: 'addStream' as const,
          cameraId: 'sluice',
          stream: { id: `${id}${at}`, label: text, path: '/x', ...UNKNOWN_STREAM },
        })),
      },
    ];
    return fc.constantFrom(...commands);
  });

test('the gate refuses what could not be opened again, and nothing else', () => {
  const seen = { refused: 0, taken: 0 };
  fc.assert(
    fc.property(anything, (command) => {
      const site = tapped();
      const after = applyCommand(site, command, stamps(LATER));
      const refusal = refusalOf(site, after);
      seen[refusal === null ? 'taken' : 'refused'] += 1;
      // The whole document, read as it is when it is opened: a computation of its own.
      expect({ command, opens: readSite(structuredClone(after)).ok }).toEqual({ command, opens: refusal === null });
    }),
    runs(400),
  );
  expect(Math.min(seen.refused, seen.taken)).toBeGreaterThan(5);
});

test('a site file with anything in the place of anything is refused in words, or read and judged, and never throws', () => {
  const document = JSON.stringify(alderMill(AT));
  const nasty = fc.constantFrom<unknown>(
    null,
    {},
    [],
    '',
    'constructor',
    '__proto__',
    'toString',
    1e300,
    -1,
    true,
    LONG,
    [[]],
  );
  const anything = fc.oneof(nasty, fc.jsonValue(), fc.double());
  // Every value of the file, by its place: one of them is another one now.
  const places: string[][] = [];
  const walk = (value: unknown, at: readonly string[]): void => {
    places.push([...at]);
    if (typeof value === 'object' && value !== null)
      for (const [name, inner] of Object.entries(value)) walk(inner, [...at, name]);
  };
  walk(JSON.parse(document), []);
  fc.assert(
    fc.property(fc.constantFrom(...places.slice(1)), anything, fc.boolean(), (place, value, asName) => {
      const changed = JSON.parse(document);
      const parent = place.slice(0, -1).reduce((part, name) => part[name], changed);
      if (asName && !Array.isArray(parent)) parent[typeof value === 'string' ? value : 'more'] = 1;
      else parent[place.at(-1) ?? ''] = value;
      const read = readSite(changed);
      if (read.ok) return expect(lanesOf(read.value, indexEvidence([]))).toHaveLength(read.value.cameras.length);
      expect(read.error.code).toMatch(/^site\./);
      expect(read.error.message.length).toBeGreaterThan(10);
    }),
    runs(300),
  );
});

test.each([
  { why: 'gear of a kind that every object has', at: ['gear', 0, 'kind'], value: 'constructor' },
  { why: 'an id that every object has', at: ['cameras', 0, 'id'], value: 'constructor' },
  { why: 'an id that leads upwards', at: ['cameras', 0, 'id'], value: '..' },
  { why: 'a host with a line end', at: ['cameras', 0, 'host'], value: '10.77.4.21\r\nX: y' },
  { why: 'a path that clears a terminal', at: ['cameras', 0, 'streams', 0, 'path'], value: '/\u001b[2J' },
  { why: 'an account with a line end', at: ['cameras', 0, 'account', 'user'], value: 'a\nb' },
  { why: 'a day that does not exist', at: ['journal', 0, 'at'], value: '2026-02-31T09:00:00.000Z' },
])('a site file is refused for $why', ({ at, value }) => {
  const changed = JSON.parse(
    JSON.stringify(
      applyCommand(alderMill(AT), { kind: 'note', text: 'x', subject: 'site', logKind: 'site' }, stamps()),
    ),
  );
  const parent = at.slice(0, -1).reduce((part, name) => part[name], changed);
  parent[at.at(-1) ?? ''] = value;
  expect(readSite(changed)).toMatchObject({ ok: false, error: { code: 'site.does-not-fit' } });
});

test('texts of the site fit the facts that tell of them', () => {
  expect(TEXT_LIMITS.evidence).toBeGreaterThan(
    'rtsp://'.length + TEXT_LIMITS.host + ':65535'.length + TEXT_LIMITS.path,
  );
  expect(TEXT_LIMITS.subject).toBeGreaterThan('destination:'.length + TEXT_LIMITS.id);
});

test('a clock that was ahead once hides nothing: the journal’s order decides', () => {
  const stamp = (at: string) => stamps(at);
  const of = { streamId: 'sluice-main', url: 'u' };
  const good = probeRecord({ ...of, probeId: 'early', report: report() });
  const bad = probeRecord({ ...of, probeId: 'late', report: report({ cause: 'closed' }) });
  const ahead = applyCommand(mill(), good, stamp('2026-11-28T09:00:00.000Z'));
  const { journal } = applyCommand(ahead, bad, stamp('2026-11-25T09:00:00.000Z'));
  const probe = rememberedProbe(indexEvidence(journal), 'sluice-main');
  expect(probe).toMatchObject({ source: 'late', payload: { verdict: 'fail', cause: 'closed' } });
});
