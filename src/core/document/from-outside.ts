import type { Account, Camera } from './chapters/cameras/camera.ts';
import type { Site } from './site.ts';

/**
 * A site as it is taken in from a file. References to passwords get new names: nothing that a file says is a key to what is kept
 * here. Who permitted a scan is asked again: a permission holds for whoever was given it.
 * @param newRef a fresh reference each time
 */
export function fromOutside(site: Site, newRef: () => string): Site {
  const names = new Map<string, string>();
  const renamed = (account: Account | null): Account | null => {
    if (!account) return null;
    const secretRef = names.get(account.secretRef) ?? newRef();
    names.set(account.secretRef, secretRef);
    return { ...account, secretRef };
  };
  const camera = (one: Camera): Camera => ({
    ...one,
    account: renamed(one.account),
    adminAccount: renamed(one.adminAccount),
  });
  return {
    ...site,
    cameras: site.cameras.map(camera),
    networks: site.networks.map((network) => ({ ...network, permit: '' })),
  };
}
