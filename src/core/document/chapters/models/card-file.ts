import { ValidationError } from 'yup';
import { type Fault, fault } from '../../../base/fault.ts';
import { isRecord } from '../../../base/is-record.ts';
import { LIST_LIMITS } from '../../../base/limits.ts';
import { isTooDeep, TOO_DEEP } from '../../../base/read-json.ts';
import { err, ok, type Result } from '../../../base/result.ts';
import { list, oneOf, shapeOf, whole } from '../../../base/schema-parts.ts';
import { eachOf, type Migration, migrate } from '../../migrations/migrate.ts';
import { cardTo6 } from '../../migrations/to-6.ts';
import { cardTo7 } from '../../migrations/to-7.ts';
import { cardTo9 } from '../../migrations/to-9.ts';
import { cardTo14 } from '../../migrations/to-14.ts';
import type { Model } from './model-card.ts';
import { modelShape } from './model-shape.ts';

export const CARD_FORMAT = 'clear-tap/model-cards';
const CARD_VERSION = 5;
/** By the version they start from; a card of version 1 is the first that was kept. */
const CARD_MIGRATIONS: Readonly<Record<number, Migration>> = {
  1: (file) => ({ ...file, version: 2, cards: eachOf(file.cards, cardTo6) }),
  2: (file) => ({ ...file, version: 3, cards: eachOf(file.cards, cardTo7) }),
  3: (file) => ({ ...file, version: 4, cards: eachOf(file.cards, cardTo9) }),
  4: (file) => ({ ...file, version: 5, cards: eachOf(file.cards, cardTo14) }),
};
export const CARD_FILE_ENDING = '.cleartap-cards.json';
const MAX_FILE_CHARS = 8 * 1024 * 1024;

export type CardFaultCode =
  | 'cards.not-json'
  | 'cards.not-cards'
  | 'cards.newer-version'
  | 'cards.does-not-fit'
  | 'cards.too-large';

interface CardFile {
  readonly format: typeof CARD_FORMAT;
  readonly version: number;
  readonly cards: readonly Model[];
}

const cardFileShape = shapeOf<CardFile>()({
  format: oneOf([CARD_FORMAT]),
  version: whole(1, CARD_VERSION).required(),
  cards: list(modelShape, LIST_LIMITS.models),
});

/** Reads a file of model cards. What does not fit is named by its path, and the file is refused whole. */
export function readCardFile(text: string): Result<readonly Model[], Fault<CardFaultCode>> {
  if (text.length > MAX_FILE_CHARS) return err(fault('cards.too-large', 'Expected a file of model cards below 8 MB.'));
  if (isTooDeep(text)) return err(fault('cards.not-json', `This is not a file of model cards. ${TOO_DEEP}`));
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    const where = error instanceof SyntaxError ? ` ${error.message}.` : '';
    return err(fault('cards.not-json', `This is not a file of model cards: it is not whole JSON.${where}`));
  }
  if (!isRecord(document) || document.format !== CARD_FORMAT)
    return err(fault('cards.not-cards', `This is JSON, but no model cards: expected format “${CARD_FORMAT}”.`));
  if (typeof document.version === 'number' && document.version > CARD_VERSION)
    return err(
      fault(
        'cards.newer-version',
        `These model cards are of version ${document.version}; this Clear Tap reads up to ${CARD_VERSION}.`,
      ),
    );
  const from = typeof document.version === 'number' ? document.version : CARD_VERSION;
  const current = migrate(document, from, CARD_VERSION, CARD_MIGRATIONS);
  try {
    cardFileShape.validateSync(current, { abortEarly: true, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return err(fault('cards.does-not-fit', `${error.path || 'The file'} does not fit: ${error.message}.`));
  }
  return ok(current.cards as readonly Model[]); // the schema above states the same shape
}

/** The text of a file of cards; reading it gives the same cards. */
export const writeCardFile = (cards: readonly Model[]): string =>
  `${JSON.stringify({ format: CARD_FORMAT, version: CARD_VERSION, cards }, null, 2)}\n`;

/** A card as it is kept in a browser: a file of one, so that its version is known. */
export const storedCard = (card: Model): CardFile => ({ format: CARD_FORMAT, version: CARD_VERSION, cards: [card] });

/** The card in a record; a bare one is of the first version. `null` where it cannot be read. */
export function readStoredCard(value: unknown): Model | null {
  const isFile = isRecord(value) && value.format === CARD_FORMAT;
  const file = isFile ? value : { format: CARD_FORMAT, version: 1, cards: [value] };
  const read = readCardFile(JSON.stringify(file));
  return read.ok ? (read.value[0] ?? null) : null;
}
