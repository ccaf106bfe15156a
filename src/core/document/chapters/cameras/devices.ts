import { parseMac } from '../../../net/mac.ts';
import type { Camera } from './camera.ts';

const macOf = ({ identity }: Camera): string | null => parseMac(identity.mac)?.mac ?? null;

/** Whether two cameras are one device: channels of one box share its address, and its plug. */
export function isDeviceOf(a: Camera, b: Camera): boolean {
  if (a.id === b.id) return true;
  if (a.kind !== 'channel' || b.kind !== 'channel') return false;
  const [mine, other] = [macOf(a), macOf(b)];
  if (mine !== null && other !== null) return mine === other;
  return a.host !== '' && a.host === b.host;
}
