import { mixed } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { id, list, moment, oneOf, shapeOf, text } from '../../../base/schema-parts.ts';
import { type Evidence, type EvidenceValue, KNOWN_HOWS } from './evidence.ts';
import { LOG_KINDS, type LogEntry } from './log.ts';

/** What JSON can carry: neither NaN nor Infinity, and no text beyond its limit. */
const isEvidenceValue = (value: unknown): value is EvidenceValue =>
  typeof value === 'boolean' ||
  (typeof value === 'number' && Number.isFinite(value)) ||
  (typeof value === 'string' && value.length <= TEXT_LIMITS.evidence);

export const evidenceShape = shapeOf<Evidence>()({
  id: id(),
  subject: text(TEXT_LIMITS.subject).min(1),
  quantity: text(TEXT_LIMITS.quantity).min(1),
  value: mixed(isEvidenceValue)
    .required()
    .test('needed', '${path} must be a text, a number or yes or no', isEvidenceValue),
  how: oneOf(KNOWN_HOWS),
  takenAt: moment(),
  source: text(TEXT_LIMITS.source),
});

export const logEntryShape = shapeOf<LogEntry>()({
  id: id(),
  at: moment(),
  kind: oneOf(LOG_KINDS),
  subject: text(TEXT_LIMITS.subject).min(1),
  text: text(TEXT_LIMITS.logText),
  refs: list(
    shapeOf<LogEntry['refs'][number]>()({ name: text(TEXT_LIMITS.refName).min(1), value: text(TEXT_LIMITS.refValue) }),
    LIST_LIMITS.logRefs,
  ),
});
