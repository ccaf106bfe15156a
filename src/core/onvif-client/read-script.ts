import type { Credentials } from '../auth/authorization.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { redactLogins, takeLoginOut } from '../net/path-login.ts';
import { parseStreamUrl } from '../net/stream-url-parser.ts';
import { ENDS_ALL, type OnvifCause } from '../onvif/onvif-cause.ts';
import type {
  OnvifReading,
  ReadEvents,
  ReadNetwork,
  ReadProfile,
  ReadPtz,
  ReadService,
  ReadUri,
} from '../onvif/reading.ts';
import { asked, placeFrom } from '../onvif/service-place.ts';
import * as device from '../onvif/services/device.ts';
import * as events from '../onvif/services/events.ts';
import * as media from '../onvif/services/media.ts';
import * as ptz from '../onvif/services/ptz.ts';
import { GET_RECORDING_SUMMARY } from '../onvif/services/recording.ts';
import { skewOf } from './first-words.ts';
import { ask, type Outcome, type Script } from './onvif-script.ts';
import type { OnvifSession } from './onvif-session.ts';

/** All of it; its clock alone, which takes no login; or where its streams are. */
export type ReadDepth = 'whole' | 'clock' | 'streams';

type Facts = Omit<
  OnvifReading,
  | 'host'
  | 'port'
  | 'path'
  | 'isTls'
  | 'heldDoors'
  | 'tls'
  | 'tellsLogin'
  | 'extraAnswers'
  | 'oddTypes'
  | 'answers'
  | 'meanAnswerMs'
  | 'login'
>;

const NOTHING: Facts = {
  cause: null,
  note: '',
  clock: null,
  device: null,
  isOpen: false,
  isOld: false,
  services: [],
  network: null,
  sources: null,
  profiles: [],
  ptz: null,
  imaging: null,
  events: null,
  recordings: null,
};

/** How long the subscription would stand that is taken for a try: nobody is to be left with one. */
const TRIAL_LIFE_S = 10;
/** A device that gave no whole answer so often in a row is not asked for the rest. */
const MOST_SILENCES = 2;
/** A device has one or two accounts that it would name. */
const MOST_OFFERED = 4;
const SILENCES: ReadonlySet<OnvifCause> = new Set(['timeout', 'closed', 'cut'] satisfies readonly OnvifCause[]);

/** What ends a reading early. */
class GivenUp extends Error {
  override readonly name = 'GivenUp';
  constructor(
    readonly why: OnvifCause,
    readonly note: string,
  ) {
    super(why);
  }
}

/**
 * Reads all that a device tells, in the order that works: the time first, since a proof is dated by it; then who it is, what
 * it offers, and each of that. What one service refuses is of no matter to the next.
 */
export class DeviceReader {
  #facts: Facts = NOTHING;
  #silences = 0;
  readonly #offered: Credentials[] = [];
  #unnamed: Pick<Facts, 'cause' | 'note'> | null = null;

  constructor(
    private readonly session: OnvifSession,
    /** Local time now. */
    private readonly unixMs: () => number,
    private readonly hasAccount: boolean,
    private readonly depth: ReadDepth = 'whole',
  ) {}

  /** Logins that stood in addresses of the device. */
  get offered(): readonly Credentials[] {
    return this.#offered;
  }
  /** As far as it got. */
  get facts(): Facts {
    return this.#facts;
  }

  *script(): Script<null> {
    try {
      yield* this.#time();
      if (this.depth === 'clock') return null;
      yield* this.#services();
      if (this.depth === 'streams') {
        yield* this.#media();
        return null;
      }
      yield* this.#identity();
      yield* this.#media();
      yield* this.#ptz();
      yield* this.#imaging();
      yield* this.#events();
      yield* this.#recordings();
      // who did not say who it is was not read, whatever else it said
      if (!this.#facts.device && this.#unnamed) this.#learn(this.#unnamed);
    } catch (error) {
      if (!(error instanceof GivenUp)) throw error;
      this.#learn({ cause: error.why, note: error.note });
    }
    return null;
  }

  #learn(facts: Partial<Facts>): void {
    this.#facts = { ...this.#facts, ...facts };
  }

  /** The answer, or nothing; where asking on makes no sense, the end. */
  #value<T>(outcome: Outcome<T>): T | null {
    if (outcome.ok) {
      this.#silences = 0;
      return outcome.value;
    }
    const { cause, note } = outcome;
    this.#silences = SILENCES.has(cause) ? this.#silences + 1 : 0;
    if (ENDS_ALL.has(cause) || this.#silences >= MOST_SILENCES) throw new GivenUp(cause, note);
    return null;
  }

  *#time(): Script<void> {
    const outcome = yield* ask(device.GET_TIME, undefined);
    // what lies there at all is found out by the first question
    if (
      !outcome.ok &&
      (outcome.cause === 'not-found' ||
        outcome.cause === 'not-soap' ||
        outcome.cause === 'hostile-xml' ||
        outcome.cause === 'too-large')
    )
      throw new GivenUp(outcome.cause, outcome.note);
    const time = this.#value(outcome);
    if (!time) return;
    const skewS = skewOf(time.unixMs, this.unixMs());
    this.session.skewS = skewS;
    this.#learn({ clock: { skewS, kept: time.kept, zone: time.zone } });
  }

  *#services(): Script<void> {
    const told = this.#value(yield* ask(device.GET_SERVICES, undefined));
    const all = told ?? this.#value(yield* ask(device.GET_CAPABILITIES, undefined)) ?? [];
    const services = all.flatMap(({ name, url, version }): readonly ReadService[] => {
      const place = placeFrom(url, this.session.target);
      if (!place) return [];
      const { path, port, isElsewhere, saidHost, isTls } = place;
      return [{ name, version, path, port, elsewhere: isElsewhere ? saidHost : '', isTls }];
    });
    const { host } = this.session.target;
    for (const { name, path, port, isTls } of services)
      if (name !== 'device') this.session.places.set(name, { host, port, path, isTls });
    this.#learn({ services, isOld: told === null && all.length > 0 });
  }

  *#identity(): Script<void> {
    // who tells everybody who it is looks at no login, whatever is sent along
    const bare = this.hasAccount ? yield* ask(device.GET_INFORMATION, undefined, { isBare: true }) : null;
    const isOpen = bare?.ok === true;
    const information = bare?.ok ? bare : yield* ask(device.GET_INFORMATION, undefined);
    this.session.checksLogins = bare?.ok === false && bare.cause === 'auth-required' && information.ok;
    if (!information.ok) this.#unnamed = { cause: information.cause, note: information.note };
    this.#learn({ device: this.#value(information), isOpen: isOpen || (information.ok && !this.hasAccount) });
    const plugs = this.#value(yield* ask(device.GET_PLUGS, undefined));
    const timeServers = this.#value(yield* ask(device.GET_NTP, undefined));
    const { host } = this.session.target;
    const plug = plugs?.find(({ addresses }) => addresses.includes(host)) ?? plugs?.[0];
    const network: ReadNetwork | null =
      plug || timeServers ? { mac: plug?.mac ?? '', dhcp: plug?.dhcp ?? null, timeServers } : null;
    this.#learn({ network });
  }

  #has(name: ReadService['name']): boolean {
    return this.session.places.has(name);
  }

  *#media(): Script<void> {
    const sources = this.#has('media') ? this.#value(yield* ask(media.GET_VIDEO_SOURCES, undefined)) : null;
    const first = this.#has('media') ? (this.#value(yield* ask(media.GET_PROFILES, undefined)) ?? []) : [];
    const second = this.#has('media2') ? (this.#value(yield* ask(media.GET_PROFILES_2, undefined)) ?? []) : [];
    const inFirst = new Set(first.map(({ token }) => token));
    const inSecond = new Map(second.map((profile) => [profile.token, profile]));
    const all: Omit<ReadProfile, 'stream' | 'still'>[] = [
      // what the second service says of a profile goes before: it knows all codecs
      ...first.map((profile) => {
        const better = inSecond.get(profile.token);
        return { ...(better ?? profile), via: better ? ('both' as const) : ('media' as const) };
      }),
      ...second.filter(({ token }) => !inFirst.has(token)).map((profile) => ({ ...profile, via: 'media2' as const })),
    ];
    const profiles: ReadProfile[] = [];
    this.#learn({ sources });
    for (const profile of all.slice(0, media.MOST_PROFILES)) {
      const isSecond = profile.via !== 'media';
      const stream = this.#value(yield* ask(isSecond ? media.GET_STREAM_URI_2 : media.GET_STREAM_URI, profile.token));
      const still = this.#value(
        yield* ask(isSecond ? media.GET_SNAPSHOT_URI_2 : media.GET_SNAPSHOT_URI, profile.token),
      );
      profiles.push({ ...profile, stream: this.#uri(stream), still: this.#uri(still) });
      this.#learn({ profiles: [...profiles] });
    }
  }

  /** A login in an address is no part of it: it goes to the vault of whoever asked, and placeholders take its place. */
  #uri(given: string | null): ReadUri | null {
    const text = given && this.#withoutLogin(given);
    const place = text ? placeFrom(text, this.session.target) : null;
    if (!place || text === null) return null;
    const scheme = text.slice(0, text.indexOf(':')).toLowerCase();
    const { path, isElsewhere, saidHost } = place;
    // of a stream the port that it gave counts: nobody forwards ONVIF's port to it
    const port = Number(/^[a-z]+:\/\/[^/?#]*:(\d{1,5})(?:[/?#]|$)/i.exec(text)?.[1] ?? (scheme === 'rtsp' ? 554 : 80));
    return { path, port, scheme, elsewhere: isElsewhere ? saidHost : '' };
  }

  #withoutLogin(given: string): string {
    // a placeholder of its own would be filled in
    const text = given.replace(/[{}]/g, (sign) => (sign === '{' ? '%7B' : '%7D'));
    const parsed = parseStreamUrl(text);
    const own = parsed.ok ? parsed.value.url : null;
    if (own?.user != null && own.password) this.#offer(own.user, own.password);
    const login = takeLoginOut(text);
    if (login.kind === 'login') this.#offer(login.user ?? own?.user ?? '', login.secret);
    return login.kind === 'login' ? login.path : login.kind === 'none' ? text : redactLogins(text);
  }
  #offer(user: string, password: string): void {
    if (this.#offered.length >= MOST_OFFERED || user.length > TEXT_LIMITS.user || password.length > TEXT_LIMITS.secret)
      return;
    if (!this.#offered.some((one) => one.user === user && one.password === password))
      this.#offered.push({ user, password });
  }

  *#ptz(): Script<void> {
    if (!this.#has('ptz')) return;
    const [node] = this.#value(yield* ask(ptz.GET_NODES, undefined)) ?? [];
    const profile = this.#facts.profiles.find(({ hasPtz }) => hasPtz)?.token;
    if (!node || profile === undefined) return;
    const status = this.#value(yield* ask(ptz.GET_STATUS, profile));
    const presets = this.#value(yield* ask(ptz.GET_PRESETS, profile));
    const tells: ReadPtz['tells'] = status?.position ? 'position' : status?.isMoving == null ? 'nothing' : 'moving';
    this.#learn({ ptz: { node, profile, tells, presets } });
  }

  *#imaging(): Script<void> {
    const source = this.#facts.profiles.find((profile) => profile.source !== '')?.source ?? this.#facts.sources?.[0];
    if (!this.#has('imaging') || source === undefined) return;
    this.#learn({ imaging: this.#value(yield* ask(media.GET_IMAGING, source)) });
  }

  *#events(): Script<void> {
    if (!this.#has('events')) return;
    const topics = this.#value(yield* ask(events.GET_EVENT_PROPERTIES, undefined)) ?? [];
    const outcome = yield* ask(events.CREATE_PULL_POINT, TRIAL_LIFE_S);
    const taken = this.#value(outcome);
    const told: ReadEvents = { topics, canPull: taken !== null, note: outcome.ok ? '' : outcome.note };
    this.#learn({ events: told });
    const at = taken && placeFrom(taken.url, this.session.target);
    // given back at once; where that is refused it ends by itself
    if (at)
      yield* ask(events.UNSUBSCRIBE, undefined, {
        at: asked(at),
        echo: taken.echo,
      });
  }

  *#recordings(): Script<void> {
    if (!this.#has('search')) return;
    this.#learn({ recordings: this.#value(yield* ask(GET_RECORDING_SUMMARY, undefined)) });
  }
}
