import { ValidationError } from 'yup';
import { type Fault, fault } from '../base/fault.ts';
import { isRecord } from '../base/is-record.ts';
import { isTooDeep, TOO_DEEP } from '../base/read-json.ts';
import { err, ok, type Result } from '../base/result.ts';
import { migrate } from './migrations/migrate.ts';
import { MIGRATIONS } from './migrations/registry.ts';
import { brokenReference } from './references.ts';
import { SITE_FORMAT, type Site } from './site.ts';
import { siteShape } from './site-shape.ts';
import { SITE_VERSION } from './version.ts';

export type SiteFaultCode =
  | 'site.not-json'
  | 'site.not-a-site'
  | 'site.newer-version'
  | 'site.does-not-fit'
  | 'site.broken-reference'
  | 'site.too-large';

/** A site of 2,000 cameras with years of log stays below this. */
const MAX_FILE_CHARS = 64 * 1024 * 1024;

/** Reads the text of a site file. What does not fit is named by its path and the file is refused whole. */
export function readSiteFile(text: string): Result<Site, Fault<SiteFaultCode>> {
  if (text.length > MAX_FILE_CHARS)
    return err(fault('site.too-large', `Expected a site file below 64 MB, got ${Math.round(text.length / 1e6)} MB.`));
  if (isTooDeep(text)) return err(fault('site.not-json', `This is not a site file. ${TOO_DEEP}`));
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch (error) {
    const where = error instanceof SyntaxError ? ` ${error.message}.` : '';
    return err(fault('site.not-json', `This is not a site file: it is not whole JSON.${where}`));
  }
  return readSite(parsed);
}

/** Checks a document that claims to be a site, of this version or an older one. */
export function readSite(document: unknown): Result<Site, Fault<SiteFaultCode>> {
  if (!isRecord(document) || document.format !== SITE_FORMAT)
    return err(fault('site.not-a-site', `This is JSON, but not a site file: expected format “${SITE_FORMAT}”.`));
  const { version } = document;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return err(fault('site.does-not-fit', 'version: expected a whole number from 1 up.', { path: 'version' }));
  if (version > SITE_VERSION)
    return err(
      fault(
        'site.newer-version',
        `This file is of version ${version}; this Clear Tap reads up to ${SITE_VERSION}. Open it with a newer Clear Tap.`,
        { version },
      ),
    );
  const current = migrate(document, version, SITE_VERSION, MIGRATIONS);
  try {
    siteShape.validateSync(current, { abortEarly: true, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return err(
      fault('site.does-not-fit', `${error.path || 'The document'} does not fit: ${error.message}.`, {
        path: error.path ?? '',
      }),
    );
  }
  const site = current as unknown as Site; // the schema above states the same shape
  const broken = brokenReference(site);
  return broken ? err(fault('site.broken-reference', broken)) : ok(site);
}

/** The text of a site file; reading it gives the same site. */
export function writeSiteFile({ journal, ...plan }: Site): string {
  const head = JSON.stringify(plan, null, 2).slice(0, -'\n}'.length);
  // an entry a line: a plan is read by people, a journal is compared and searched
  const entries = journal.map((entry) => `\n    ${JSON.stringify(entry)}`).join(',');
  return `${head},\n  "journal": [${entries}${entries === '' ? '' : '\n  '}]\n}\n`;
}

/** Ending of site files. */
export const SITE_FILE_ENDING = '.cleartap.json';
