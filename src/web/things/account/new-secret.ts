import {
  type AlphabetName,
  makeSecret,
  SECRET_LENGTHS,
  signsFor,
  USUAL_LENGTH,
} from '../../../core/auth/secret-maker.ts';
import type { Account, Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Site } from '../../../core/document/site.ts';
import { drawersOf } from '../../../core/site/drawers.ts';
import type { SiteView } from '../../../core/site/site-view.ts';
import { newId } from '../../store/new-id.ts';
import { boundTo } from '../../vault/camera-places.ts';
import type { Vault } from '../../vault/vault-contract.ts';

const randomBytes = (count: number): Uint8Array => crypto.getRandomValues(new Uint8Array(count));

/** What a secret of a camera may be: the signs and the length that the camera and all who draw it take. */
export function secretRoom(camera: Camera, view: SiteView, alphabet: AlphabetName, length: number) {
  const limits = [view.modelOf(camera)?.secretLimits, ...drawersOf(camera, view).map((one) => one.secretLimits)];
  const refused = limits.map((one) => one?.refused ?? '').join('');
  const longest = Math.min(...limits.map((one) => one?.longest ?? SECRET_LENGTHS.max), SECRET_LENGTHS.max);
  const most = Math.max(longest, SECRET_LENGTHS.min);
  return { signs: signsFor(alphabet, refused), most, count: Math.min(length, most), hasRefused: refused !== '' };
}

/**
 * A new secret in the vault, and the account that has it, under a reference of its own: undo gives the account of before
 * back, and with it the secret of before.
 */
export function accountWithNewSecret(
  site: Pick<Site, 'name' | 'models'>,
  camera: Camera,
  user: string,
  { signs, count }: Pick<ReturnType<typeof secretRoom>, 'signs' | 'count'>,
  vault: Vault,
): Account {
  const secretRef = newId('secret');
  vault.set(secretRef, makeSecret(signs, count, randomBytes), boundTo(site, camera, user));
  return { user, secretRef };
}

/** As it is made where nobody chooses. */
export const usualRoom = (camera: Camera, view: SiteView) => secretRoom(camera, view, 'clear', USUAL_LENGTH);
