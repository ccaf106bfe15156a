import { eachOf, type Migration } from './migrate.ts';

/** Signs that end a line or steer a terminal: a name has none of them any more. */
const CONTROL = /\p{Cc}/gu;
/** Fields that stand on one line, wherever in the plan. */
const ONE_LINE: ReadonlySet<string> = new Set(['name', 'label', 'place', 'maker', 'model', 'hardwareRev', 'address']);
const MOST_DEPTH = 12;

const onOneLine = (value: unknown, key: string, depth: number): unknown => {
  if (typeof value === 'string') return ONE_LINE.has(key) ? value.replace(CONTROL, ' ') : value;
  if (typeof value !== 'object' || value === null || depth > MOST_DEPTH) return value;
  if (Array.isArray(value)) return value.map((one) => onOneLine(one, key, depth + 1));
  return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, onOneLine(one, name, depth + 1)]));
};

/** 11: whether ONVIF is asked over TLS; names stand on one line. */
export const to11: Migration = (document) => {
  const { journal, ...plan } = document;
  const onLines = onOneLine(plan, '', 0) as typeof plan; // the same fields, some of their texts without line ends
  return {
    ...onLines,
    journal,
    version: 11,
    cameras: eachOf(onLines.cameras, (camera) => ({ ...camera, onvifTls: false })),
  };
};
