import { sayBytes } from '../../../base/say.ts';
import { OPTION_WORDS } from '../../../firmware/options.ts';
import { cameraOf, changeCamera, type Handlers } from '../../command-parts.ts';
import type { Account } from './camera.ts';
import type { OldPhone } from './old-phone.ts';
import { type ImageFile, type Reflash, UNSAID_REFLASH } from './reflash.ts';

/** What is decided and made ready before a camera is given an address. */
export type PrepareCommand =
  | { readonly kind: 'setAdminAccount'; readonly cameraId: string; readonly account: Account | null }
  /** `null` gives it up: nothing of it is decided any more. */
  | { readonly kind: 'setReflash'; readonly cameraId: string; readonly reflash: Reflash | null }
  | { readonly kind: 'setHandset'; readonly cameraId: string; readonly handset: OldPhone | null };

const sayImage = (image: ImageFile | null): string | undefined =>
  image === null ? undefined : `${image.fileName}, ${sayBytes(image.bytes)}`;

/** What of it is new, in words. */
function saidOf(before: Reflash, after: Reflash): string {
  if (after.decision !== before.decision)
    return after.decision === null
      ? 'firmware: decision cleared'
      : `firmware: decided to ${OPTION_WORDS[after.decision]}`;
  if (after.image !== before.image)
    return after.image === null ? 'firmware file removed' : `firmware file added: ${after.image.fileName}`;
  if (after.backImage !== before.backImage)
    return after.backImage === null
      ? 'original firmware file removed'
      : `original firmware file added: ${after.backImage.fileName}`;
  if (after.isBackGivenUp !== before.isBackGivenUp)
    return after.isBackGivenUp ? 'no way back, accepted' : 'a way back is required again';
  if (after.card !== before.card) return 'SD card planned';
  return 'firmware changed';
}

export const PREPARE_COMMANDS: Handlers<PrepareCommand> = {
  setAdminAccount: (site, { cameraId, account }) => {
    const refs = { from: cameraOf(site, cameraId).adminAccount?.user ?? 'none', to: account?.user ?? 'none' };
    const change = 'set-up account changed';
    return changeCamera(site, cameraId, 'prepare', change, (camera) => ({ ...camera, adminAccount: account }), refs);
  },
  setReflash: (site, { cameraId, reflash }) => {
    const before = cameraOf(site, cameraId).reflash ?? UNSAID_REFLASH;
    const text = reflash ? saidOf(before, reflash) : 'firmware: all entries removed';
    return changeCamera(site, cameraId, 'prepare', text, (camera) => ({ ...camera, reflash }), {
      firmware: sayImage(reflash?.image ?? null),
      SHA256: reflash?.image?.sha256,
      'original firmware': sayImage(reflash?.backImage ?? null),
      'SD card': reflash?.card ? `${sayBytes(reflash.card.bytes)}, ${reflash.card.fileSystem}` : undefined,
    });
  },
  setHandset: (site, { cameraId, handset }) =>
    changeCamera(
      site,
      cameraId,
      'prepare',
      handset ? 'old phone: set-up changed' : 'no longer an old phone',
      (camera) => ({
        ...camera,
        handset,
      }),
    ),
};
