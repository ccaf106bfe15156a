import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Site } from '../../document/site.ts';

/** [A] Some devices take no more signs in a name. */
const MOST_CHARS = 16;

/**
 * A name for the streaming account of a camera: small letters, digits and dashes, which every device takes and no URL
 * encodes; one that no other camera of the site has.
 * @param alsoTaken names that are given in the same breath
 */
export function ownUser({ cameras }: Pick<Site, 'cameras'>, camera: Camera, alsoTaken: readonly string[] = []): string {
  const slug = camera.name
    .normalize('NFD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  const stem = `view-${slug === '' ? 'camera' : slug}`.slice(0, MOST_CHARS).replace(/-$/, '');
  const taken = new Set([
    ...alsoTaken,
    ...cameras.flatMap(({ id, account, adminAccount }) => [
      ...(id === camera.id ? [] : [account?.user.toLowerCase()]),
      adminAccount?.user.toLowerCase(),
    ]),
  ]);
  if (!taken.has(stem)) return stem;
  for (let number = 2; ; number++) {
    const next = `${stem.slice(0, MOST_CHARS - 1 - String(number).length)}-${number}`;
    if (!taken.has(next)) return next;
  }
}
