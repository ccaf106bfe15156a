import type { Direction } from '../../../firmware/procedure.ts';
import {
  cameraOf,
  destinationOf,
  itemOf,
  type LogWords,
  type Recorded,
  type Recorders,
  streamIn,
  words,
} from '../../command-parts.ts';
import type { Payload } from '../../payload/payload.ts';
import type { Site } from '../../site.ts';
import { cameraSubject, networkSubject, streamSubject, tapSubject } from '../../subject.ts';
import { nameOfSubject } from '../../subjects.ts';
import { tapOf } from '../taps/tap-commands.ts';
import { type BenchItem, benchQuantity } from './bench-items.ts';
import type { Entry, Fact, FactValue, LogKind } from './entry.ts';
import { HAND_QUANTITIES, type HandQuantity, sayValue } from './hand-quantities.ts';
import { ONVIF_RECORDERS, type OnvifRecord } from './onvif-recorders.ts';
import { type ReflashStep, settingQuantity } from './prepare-quantity.ts';
import type { QuantityName } from './quantities.ts';

/** What happened or was measured: it is written down, and the plan stays as it is. */
export type JournalCommand =
  | {
      /** What was measured as a whole: a probe, a count, a sweep. It is composed where it is known (measured-records.ts). */
      readonly kind: 'recordMeasured';
      readonly logKind: LogKind;
      /** Subject that it is known of: a stream, a camera, a network. */
      readonly of: string;
      readonly payload: Payload | null;
      /** How the line goes on after the name of what it is known of. */
      readonly said: string;
      readonly numbers: Readonly<Record<string, string | undefined>>;
      readonly source: string;
      readonly facts: readonly Fact[];
    }
  | {
      /** Somebody looked at the new certificate of a camera and takes it for its own. */
      readonly kind: 'trustCertificate';
      readonly cameraId: string;
      readonly fingerprint: string;
      readonly by: string;
    }
  | {
      readonly kind: 'recordHandOver';
      readonly tapId: string;
      readonly url: string;
      readonly by: string;
      readonly refs: Entry['refs'];
    }
  | {
      readonly kind: 'recordBenchTest';
      readonly cameraId: string;
      readonly item: BenchItem;
      readonly seen: string;
      readonly by: string;
    }
  | {
      /** Read on the spot, by eye or by another instrument. */
      readonly kind: 'recordReading';
      /** Whose line of the log it is; what it is known of is `subject`. */
      readonly about: string;
      readonly subject: string;
      readonly quantity: HandQuantity;
      readonly value: FactValue;
      readonly by: string;
      /** What it was read under, as far as it is known: a warmth means little without its load. */
      readonly under?: readonly { readonly quantity: QuantityName; readonly value: FactValue }[];
    }
  | {
      readonly kind: 'withdrawReading';
      readonly about: string;
      readonly subject: string;
      readonly quantity: HandQuantity;
    }
  | {
      /** How a setting of the device stands, as somebody saw it there. `said` names it for the log. */
      readonly kind: 'recordSetting';
      readonly cameraId: string;
      readonly subject: string;
      readonly setting: string;
      readonly said: string;
      readonly value: FactValue;
      readonly by: string;
    }
  | {
      readonly kind: 'withdrawSetting';
      readonly cameraId: string;
      readonly subject: string;
      readonly setting: string;
      readonly said: string;
    }
  | {
      /** A step of writing another firmware, as hands and eyes told it; `begin` starts anew. */
      readonly kind: 'recordReflashStep';
      readonly cameraId: string;
      readonly told: ReflashStep;
      readonly said: string;
      readonly by: string;
    }
  | {
      /** The image as it was read back from the card. */
      readonly kind: 'recordReadBack';
      readonly cameraId: string;
      readonly fileName: string;
      readonly sha256: string;
      readonly bytes: number;
    }
  | {
      readonly kind: 'recordRehearsal';
      readonly cameraId: string;
      readonly direction: Direction;
      readonly tries: number;
    }
  | OnvifRecord
  | { readonly kind: 'note'; readonly text: string; readonly subject: string; readonly logKind: LogKind };

/** Entries that know something of a subject: what takes a fact back takes back all of them. */
const entriesOf = ({ journal }: Site, subject: string, quantity: string): readonly string[] =>
  journal
    .filter(({ facts }) => facts.some((fact) => fact.subject === subject && fact.quantity === quantity))
    .map(({ id }) => id);

/** Whose line it is, and what that is called: of a stream, its camera's. */
function measuredOn(site: Site, of: string): { readonly subject: string; readonly name: string } {
  const id = of.slice(of.indexOf(':') + 1);
  if (of === networkSubject(id)) return { subject: of, name: itemOf(site.networks, id, 'network').name };
  if (of === cameraSubject(id)) return { subject: of, name: cameraOf(site, id).name };
  const camera = site.cameras.find(({ streams }) => streams.some((stream) => streamSubject(stream.id) === of));
  if (!camera) throw new RangeError(`of: there is no ${of}`);
  return { subject: cameraSubject(camera.id), name: `${camera.name} ${streamIn(camera, id).label}` };
}

/** Words without facts. */
const said = (words: LogWords): Recorded => ({ ...words, source: '', facts: [] });

export const JOURNAL_COMMANDS: Recorders<JournalCommand> = {
  recordMeasured: (site, { logKind, of, payload, said: outcome, numbers, source, facts }) => {
    const { subject, name } = measuredOn(site, of);
    return { ...words(logKind, subject, `${name}${outcome}`, numbers), source, facts, payload };
  },
  trustCertificate: (site, { cameraId, fingerprint, by }) => {
    const subject = cameraSubject(cameraId);
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name}: new certificate trusted`, { 'SHA-256': fingerprint }),
      source: by,
      facts: [{ subject, quantity: 'tls.trusted', value: fingerprint, how: 'confirmed' }],
    };
  },
  recordHandOver: (site, { tapId, url, by, refs }) => {
    const tap = tapOf(site, tapId);
    const subject = tapSubject(tap.id);
    const text = `${cameraOf(site, tap.cameraId).name} handed over to ${destinationOf(site, tap.destinationId).name}`;
    const facts: readonly Fact[] = [{ subject, quantity: 'handedOver', value: url, how: 'confirmed' }];
    return { kind: 'hand-over', subject, text, refs, source: by, facts };
  },
  recordBenchTest: (site, { cameraId, item, seen, by }) => {
    const value = seen || 'yes';
    const subject = cameraSubject(cameraId);
    const text = `${cameraOf(site, cameraId).name}: on the bench: ${item.said}`;
    return {
      ...words('power', subject, text, { seen: value }),
      source: by,
      facts: [{ subject, quantity: benchQuantity(item.id), value, how: 'confirmed' }],
    };
  },
  recordReading: (site, { about, subject, quantity, value, by, under = [] }) => {
    const said = sayValue(HAND_QUANTITIES[quantity], value);
    const text = `${nameOfSubject(site, about)}: ${HAND_QUANTITIES[quantity].label} measured: ${said}`;
    return {
      ...words('power', about, text, { [HAND_QUANTITIES[quantity].label]: said }),
      source: by,
      facts: [{ quantity, value }, ...under].map((fact) => ({ subject, ...fact, how: 'measured' })),
    };
  },
  withdrawReading: (site, { about, subject, quantity }) => {
    const text = `${nameOfSubject(site, about)}: ${HAND_QUANTITIES[quantity].label} removed`;
    return {
      ...said(words(quantity.startsWith('head.') ? 'tap' : 'power', about, text)),
      revokes: entriesOf(site, subject, quantity),
    };
  },
  recordSetting: (site, { cameraId, subject, setting, said: name, value, by }) => ({
    ...words(
      'prepare',
      cameraSubject(cameraId),
      `${cameraOf(site, cameraId).name}: ${name}: ${sayValue(undefined, value)}`,
    ),
    source: by,
    facts: [{ subject, quantity: settingQuantity(setting), value, how: 'confirmed' }],
  }),
  withdrawSetting: (site, { cameraId, subject, setting, said: name }) => ({
    ...said(words('prepare', cameraSubject(cameraId), `${cameraOf(site, cameraId).name}: ${name}: removed`)),
    revokes: entriesOf(site, subject, settingQuantity(setting)),
  }),
  recordReflashStep: (site, { cameraId, told, said: text, by }) => {
    const subject = cameraSubject(cameraId);
    return {
      ...words('prepare', subject, `${cameraOf(site, cameraId).name}: ${text}`),
      source: by,
      facts: [{ subject, quantity: 'reflash.step', value: told, how: 'confirmed' }],
    };
  },
  recordReadBack: (site, { cameraId, fileName, sha256, bytes }) => {
    const subject = cameraSubject(cameraId);
    const fact = (quantity: QuantityName, value: FactValue): Fact => ({ subject, quantity, value, how: 'measured' });
    return {
      ...words('prepare', subject, `${cameraOf(site, cameraId).name}: read back from the SD card: ${fileName}`, {
        SHA256: sha256,
        bytes: String(bytes),
      }),
      source: 'the SD card',
      facts: [fact('card.fileName', fileName), fact('card.sha256', sha256), fact('card.bytes', bytes)],
    };
  },
  recordRehearsal: (site, { cameraId, direction, tries }) => {
    const subject = cameraSubject(cameraId);
    const way = direction === 'onward' ? 'onward' : 'back';
    return {
      ...words('prepare', subject, `${cameraOf(site, cameraId).name}: rehearsed ${way}, on a simulated camera`, {
        tries: String(tries),
      }),
      source: 'rehearsal',
      facts: [{ subject, quantity: `reflash.rehearsed.${direction}`, value: tries, how: 'confirmed' }],
    };
  },
  ...ONVIF_RECORDERS,
  note: (_, { logKind, subject, text }) => said(words(logKind, subject, text)),
};
