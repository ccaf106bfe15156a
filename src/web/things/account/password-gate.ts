import { sayMany } from '../../../core/base/say.ts';
import type { Account, Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Site } from '../../../core/document/site.ts';
import { knownBy } from '../../../core/evidence/seen-cameras.ts';
import { seenThisVisit } from '../../store/seen-this-visit.ts';
import { boundTo } from '../../vault/camera-places.ts';
import { type Bound, isAllowed, type PasswordPlace, sameHost } from '../../vault/password-place.ts';
import { sayPlace, sayPlaces } from '../../vault/say-places.ts';
import type { Vault } from '../../vault/vault-contract.ts';
import { type QuestionRow, questions } from '../question/index.ts';

/** One wish to send a password somewhere. */
export interface PasswordUse {
  readonly site: Site;
  readonly camera: Camera;
  readonly account: Account | null;
  readonly place: PasswordPlace;
}

export type PasswordState =
  /** None is asked for, or none is known: what goes there goes without. */
  | { readonly kind: 'none' }
  | {
      readonly kind: 'ready';
      readonly secret: string;
      readonly mayGoReadable: boolean;
      /** Typed for another address, at which the same device was: this visit’s own search proved it. */
      readonly movedFrom: Bound | null;
    }
  /** It was typed for another address. */
  | { readonly kind: 'held'; readonly typedFor: Bound | null }
  /** Not known for this camera, and kept for another one at the same address. */
  | { readonly kind: 'elsewhere'; readonly typedFor: Bound };

const isSameDevice = ({ site, camera, place }: PasswordUse): boolean => {
  const seen = seenThisVisit(site.id, place.host);
  return seen !== null && knownBy(camera, seen) !== null;
};

/** Whether the password of an account may go to a place. Asks nobody. */
export function passwordAt(use: PasswordUse, vault: Vault): PasswordState {
  const { account, place } = use;
  if (!account || (account.user === '' && !place.inPath)) return { kind: 'none' };
  const secret = vault.get(account.secretRef);
  if (secret === null) {
    if (vault.state === 'locked' || place.host === '') return { kind: 'none' };
    const elsewhere = vault.knownElsewhere(account.user, place);
    return elsewhere ? { kind: 'elsewhere', typedFor: elsewhere.bound } : { kind: 'none' };
  }
  const bound = vault.boundOf(account.secretRef);
  if (bound) {
    const ready = { kind: 'ready', secret, mayGoReadable: bound.mayGoReadable, movedFrom: null } as const;
    if (isAllowed(bound.places, place)) return ready;
    // the same device at another address, told by what stays of it: its ports and lines as before
    const moved = bound.places.some((one) => isAllowed([{ ...one, host: place.host }], place));
    if (moved && isSameDevice(use)) return { ...ready, movedFrom: bound };
  }
  return { kind: 'held', typedFor: bound };
}

/** Whose it is and who asks, by what tells them apart: the same camera is not named twice, the open site not at all. */
function rowOf({ site, camera, account, place }: PasswordUse, typedFor: Bound | null): QuestionRow {
  const isElsewhere = typedFor !== null && typedFor.siteName !== site.name;
  const isOther = typedFor !== null && (isElsewhere || typedFor.cameraName !== camera.name);
  const whose = typedFor && isOther ? typedFor.cameraName : camera.name;
  return {
    whose: `${whose}${isElsewhere ? ` of ${typedFor.siteName}` : ''}, account “${account?.user ?? ''}”`,
    typedFor:
      typedFor && (typedFor.places.length === 0 ? 'no address: the camera had none yet' : sayPlaces(typedFor.places)),
    asks: `${sayPlace(place)}${isOther ? ` (${camera.name}${isElsewhere ? ` of ${site.name}` : ''})` : ''}`,
  };
}

/** Takes a person's yes: from now on it may go there. */
function allow(use: PasswordUse, state: Extract<PasswordState, { kind: 'held' | 'elsewhere' }>, vault: Vault): void {
  const { account, camera, place, site } = use;
  if (!account) return;
  const bound = boundTo(site, camera, account.user);
  if (state.kind === 'elsewhere') {
    const known = vault.knownElsewhere(account.user, place);
    if (known) vault.set(account.secretRef, known.secret, { ...bound, places: [place] });
  } else if (state.typedFor && state.typedFor.cameraId !== camera.id) {
    const secret = vault.get(account.secretRef);
    if (secret !== null) vault.set(account.secretRef, secret, { ...bound, places: [place] });
  } else vault.allow(account.secretRef, place, { ...bound, places: [] });
}

/**
 * Asks a person about each password that was typed for another address, in one question for all. Resolves with the uses that
 * may go on: those that asked nothing, and the others where the answer was yes.
 */
export async function mayGo<Use extends PasswordUse>(uses: readonly Use[], vault: Vault): Promise<readonly Use[]> {
  const asking = uses.flatMap((use) => {
    const state = passwordAt(use, vault);
    return state.kind === 'held' || state.kind === 'elsewhere' ? [{ use, state }] : [];
  });
  const [first] = asking;
  if (!first) return uses;
  const isOne = asking.length === 1;
  // at the host that it was typed for the port tells them apart
  const isSameHost = first.state.typedFor?.places.some(({ host }) => sameHost(host, first.use.place.host)) === true;
  const there = isSameHost ? `port ${first.use.place.port}` : first.use.place.host;
  const areElsewhere = asking.every(({ state }) => state.kind === 'elsewhere');
  const inPath = asking.some(({ use }) => use.place.inPath);
  const isYes = await questions.ask({
    title: areElsewhere
      ? isOne
        ? 'Use the password that is kept for this address?'
        : `Use ${sayMany(asking.length, 'password')} that are kept for these addresses?`
      : isOne
        ? `Send this password to ${isSameHost ? sayPlace(first.use.place) : there}?`
        : `Send ${sayMany(asking.length, 'password')} to other addresses?`,
    lines: [
      areElsewhere
        ? `${isOne ? 'It was' : 'They were'} typed for the same account at the same address, under another camera or another site.`
        : `${isOne ? 'It was' : 'They were'} typed for another address. Whoever answers there gets ${isOne ? 'it' : 'them'}, or a proof of ${isOne ? 'it' : 'them'}.`,
      ...(inPath ? ['The path takes the password readable, before the device asks for any.'] : []),
    ],
    rows: asking.map(({ use, state }) => rowOf(use, state.typedFor)),
    yes: areElsewhere
      ? isOne
        ? 'Use it'
        : `Use all ${asking.length}`
      : isOne
        ? `Send it to ${there}`
        : `Send all ${asking.length}`,
    no: isOne ? 'Do not send it' : 'Leave these out',
  });
  if (isYes) for (const { use, state } of asking) allow(use, state, vault);
  const refused = new Set<PasswordUse>(isYes ? [] : asking.map(({ use }) => use));
  return uses.filter((use) => !refused.has(use));
}

/** What goes with a request: the password, if it may go there, and what a person allowed for this device. */
export function loginOf(use: PasswordUse, vault: Vault) {
  const state = passwordAt(use, vault);
  const isReady = state.kind === 'ready';
  const isReadable = isReady && state.mayGoReadable;
  return {
    user: use.account?.user ?? null,
    secret: isReady ? state.secret : null,
    ...(isReadable ? { mayGoReadable: true, byBasic: true } : {}),
  };
}
