import type { SecretTraits } from '../../auth/secret-traits.ts';
import type { OldPhoneLens, OldPhoneWay } from '../../document/chapters/cameras/old-phone.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import type { Facts } from '../../findings/rule.ts';
import type { NameVerdict } from '../../firmware/image-name.ts';
import type { FileSystem } from '../../firmware/memory-card.ts';
import type { Option } from '../../firmware/options.ts';
import type { Phase } from '../../firmware/procedure.ts';
import type { HashVerdict } from '../../firmware/published-hash.ts';
import type { Mount, Screen } from '../../old-phone/heat.ts';
import type { Setting } from './settings.ts';

type Mends = readonly Mend<SiteCommand>[];

/** Of the account that draws its streams. */
export interface AccountFacts {
  readonly hasAccount: boolean;
  /** A probe was let in without one. */
  readonly isOpen: boolean;
  readonly user: string;
  /** Of the one who sets it up; absent while nobody said. */
  readonly adminUser: string;
  /** Names that every device of its kind comes with. */
  readonly factoryUsers: readonly string[];
  /** Other accounts of the site that are the same name but for the case of letters. */
  readonly caseApart: readonly string[];
  /** Absent while the secret is not in reach. */
  readonly secret: SecretTraits;
  /** Who cannot take what, in words: “Loft store cannot take it: a sign of it is one of & #”. */
  readonly refusedBy: readonly string[];
  /** Bits below which a secret is weak, and below which it is guessed. */
  readonly strongBits: number;
  readonly weakBits: number;
}

/** Of the settings that decide whether the later stations succeed. */
export interface SettingFacts {
  readonly settings: readonly Setting[];
  /** Names of those that nobody looked at. */
  readonly openSettings: readonly string[];
  readonly soundWanted: boolean;
  /** Longest wait for a key frame of each stream in use against what its uses bear, s. */
  readonly keyFrames: readonly KeyFrame[];
}
export interface KeyFrame {
  readonly stream: string;
  readonly seconds: number;
  readonly wantedS: number;
  readonly how: string;
}

/** Of another firmware. */
export interface FirmwareFacts {
  /** It gives no stream with the firmware that it has, and nobody has seen it give one. */
  readonly needsFirmware: boolean;
  readonly decision: Option | null;
  readonly vetoes: readonly string[];
  /** Questions that could be a veto, and that nobody answered. */
  readonly openVetoes: readonly string[];
  /** The decision writes another image. */
  readonly writes: boolean;
  readonly hasImage: boolean;
  /** Marks that differ, and marks that nobody wrote down, in words. */
  readonly marksApart: readonly string[];
  readonly marksUnknown: readonly string[];
  /** Hardware revision by the label, by the model card, and of the image; absent where nobody wrote it down. */
  readonly labelRev: string;
  readonly cardRev: string;
  readonly imageRev: string;
  readonly labelVersion: string;
  readonly imageVersion: string;
  readonly imageHash: HashVerdict;
  readonly imageBytes: number;
  readonly backHash: HashVerdict;
  /** The image of before and the new one are the same file. */
  readonly isSameImage: boolean;
  readonly hasBack: boolean;
  readonly isBackGivenUp: boolean;
  readonly hasGuide: boolean;
  readonly hasCard: boolean;
  readonly partitionFits: boolean;
  readonly partitionMiB: number;
  readonly limitGiB: number;
  readonly fileSystem: FileSystem;
  readonly fileSystemWanted: FileSystem;
  readonly imageFitsCard: boolean;
  /** The partition has the size for its file system. */
  readonly isFileSystemPossible: boolean;
  readonly nameWanted: string;
  readonly nameOnCard: string;
  readonly nameVerdict: NameVerdict;
  /** As read back: absent while nobody did. */
  readonly readBack: { readonly isSame: boolean; readonly nameVerdict: NameVerdict; readonly fileName: string };
  readonly isRehearsed: boolean;
  /** Where its reflash stands; absent while none was begun. */
  readonly phase: Phase;
  /** It began to write, and was not seen to work since. */
  readonly hasWritten: boolean;
  /** The lamp’s signs that nobody can tell apart, in words. */
  readonly sameLeds: readonly string[];
}

/** Of an old handset. */
export interface OldPhoneFacts {
  readonly isOldPhone: boolean;
  /** °C that it ends up at, and minutes until it is too warm; `null` never. */
  readonly steadyC: number;
  /** It was read to be warmer than its own watts can make it. */
  readonly isHeatedElsewhere: boolean;
  readonly minutesToWarm: number | null;
  readonly oldPhoneW: number;
  readonly roomC: number;
  readonly cellWarmC: number;
  readonly cellHotC: number;
  /** The way heat leaves it was read, not assumed. */
  readonly isHeatRead: boolean;
  readonly mount: Mount;
  readonly screen: Screen;
  readonly lens: OldPhoneLens;
  readonly way: OldPhoneWay;
  readonly startsItself: boolean;
  readonly hasFixedMac: boolean;
  readonly sendsSound: boolean;
  readonly isHeardNearby: boolean;
  readonly atNight: boolean;
  readonly hasLight: boolean;
  readonly wantsDetail: boolean;
  readonly loopHours: number;
  readonly loopHoursWanted: number;
}

export interface PrepareFacts extends AccountFacts, SettingFacts, FirmwareFacts, OldPhoneFacts {}

/** What could be changed. */
export interface PrepareOffers {
  /** Another name for the account, which nothing speaks against. */
  readonly ownName: () => Mends;
  readonly keyFrames: () => Mends;
  readonly decisions: () => Mends;
  readonly partition: () => Mends;
  readonly fileSystem: () => Mends;
  readonly fileName: () => Mends;
  /** What makes it cooler, the least loss first. */
  readonly cooler: () => Mends;
  readonly screenOff: () => Mends;
  readonly soundOff: () => Mends;
  readonly localWay: () => Mends;
  readonly backLens: () => Mends;
  readonly loopWanted: () => Mends;
}

/** Another image is to be written. */
export const writes = (f: Facts<PrepareFacts>): boolean => f.writes === true;
export const hasImage = (f: Facts<PrepareFacts>): boolean => writes(f) && f.hasImage === true;
