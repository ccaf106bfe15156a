import { type Marks, NO_MARKS } from '../../../firmware/marks.ts';
import type { FileSystem } from '../../../firmware/memory-card.ts';
import type { Option } from '../../../firmware/options.ts';

/** An image as it was taken in: the file itself is nowhere in the document. */
export interface ImageFile {
  readonly fileName: string;
  /** Where it lay in a ZIP; `null` where it came by itself. */
  readonly archive: string | null;
  readonly bytes: number;
  /** As it was computed here. */
  readonly sha256: string;
  /** As it stands where the image was published; empty while nobody looked. */
  readonly published: string;
  readonly version: string;
  /** Hardware revision that it was published for, as labels print it. */
  readonly hardwareRev: string;
  /** What it was published for, by the board. */
  readonly marks: Marks;
}

/** The card that is prepared: how large it is, and what is to be on it. */
export interface PlannedCard {
  readonly bytes: number;
  readonly fileSystem: FileSystem;
  /** Of its first partition, MiB; `null` is the rest of the card. */
  readonly partitionMiB: number | null;
  /** The name that the image has on it. */
  readonly fileName: string;
}

/** What is decided and made ready of another firmware for one camera. `null` of a question is not known. */
export interface Reflash {
  readonly isOwn: boolean | null;
  readonly isOnlyOne: boolean | null;
  readonly hasMainsInside: boolean | null;
  /** Something brings it back when a card does not: a loader over a wire, a programmer. */
  readonly hasRescue: boolean | null;
  /** As its own label and page say; empty while nobody looked. */
  readonly label: { readonly hardwareRev: string; readonly version: string };
  /** As they are read on its own board. */
  readonly marks: Marks;
  readonly decision: Option | null;
  readonly image: ImageFile | null;
  /** The image of before, for going back. */
  readonly backImage: ImageFile | null;
  /** Somebody accepted that there is no way back. */
  readonly isBackGivenUp: boolean;
  readonly card: PlannedCard | null;
}

export const UNSAID_REFLASH: Reflash = {
  isOwn: null,
  isOnlyOne: null,
  hasMainsInside: null,
  hasRescue: null,
  label: { hardwareRev: '', version: '' },
  marks: NO_MARKS,
  decision: null,
  image: null,
  backImage: null,
  isBackGivenUp: false,
  card: null,
};
