import { clipText } from '../base/clip.ts';
import { redactText } from '../net/redact-text.ts';

/** What is looked at of one text of a peer, and what is said of it. */
export const MAX_SCANNED_CHARS = 4096;
const MAX_NOTE_CHARS = 400;

/** What is said of a peer's words: clipped before they are scanned, without a login, and no longer than a sentence. */
export const sayOfPeer = (text: string, hide: (text: string) => string): string =>
  clipText(redactText(hide(clipText(text, MAX_SCANNED_CHARS))), MAX_NOTE_CHARS);
