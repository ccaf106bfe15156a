import { ValidationError } from 'yup';
import { type Fault, fault } from '../base/fault.ts';
import { isRecord } from '../base/is-record.ts';
import { err, ok, type Result } from '../base/result.ts';
import { UNPLANNED } from './chapters/cameras/camera.ts';
import { emptyModel } from './chapters/models/model-card.ts';
import { brokenReference, repeatedId } from './references.ts';
import { emptySite, SITE_FORMAT, SITE_VERSION, type Site } from './site.ts';
import { siteShape } from './site-shape.ts';

export type SiteFaultCode =
  | 'site.not-json'
  | 'site.not-a-site'
  | 'site.newer-version'
  | 'site.does-not-fit'
  | 'site.broken-reference'
  | 'site.too-large';

/** A site of 2,000 cameras with years of log stays below this. */
const MAX_FILE_CHARS = 64 * 1024 * 1024;

type Migration = (document: Record<string, unknown>) => Record<string, unknown>;
/** One step forward for each version: MIGRATIONS[1] turns a document of version 1 into one of version 2. */
const MIGRATIONS: Readonly<Record<number, Migration>> = {
  /** 2: model cards say how many clients are served at once. */
  1: (document) => ({
    ...document,
    version: 2,
    models: Array.isArray(document.models)
      ? document.models.map((model: unknown) => (isRecord(model) ? { ...model, sessions: null } : model))
      : document.models,
  }),
  /** 3: choosing, feeding and drawing the site: needs, gear, links, plan, costs, and model cards that say more. */
  2: (document) => {
    const each = (items: unknown, more: object, isUnder = false): unknown =>
      Array.isArray(items)
        ? items.map((item: unknown) =>
            isRecord(item) ? (isUnder ? { ...more, ...item } : { ...item, ...more }) : item,
          )
        : items;
    const { sky, plan, gear, links, costing, assumptions } = emptySite('', '');
    return {
      ...document,
      version: 3,
      sky,
      plan,
      gear,
      links,
      costing,
      assumptions,
      models: each(document.models, emptyModel('', '', ''), true),
      cameras: each(document.cameras, UNPLANNED),
      destinations: each(document.destinations, { position: null }),
    };
  },
};

/** Reads the text of a site file. What does not fit is named by its path and the file is refused whole. */
export function readSiteFile(text: string): Result<Site, Fault<SiteFaultCode>> {
  if (text.length > MAX_FILE_CHARS)
    return err(fault('site.too-large', `Expected a site file below 64 MB, got ${Math.round(text.length / 1e6)} MB.`));
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
  let current = document;
  for (let from = version; from < SITE_VERSION; from++) current = MIGRATIONS[from]?.(current) ?? current;
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
  const broken = repeatedId('evidence', site.evidence) ?? repeatedId('log', site.log) ?? brokenReference(site);
  return broken ? err(fault('site.broken-reference', broken)) : ok(site);
}

/** The text of a site file; reading it gives the same site. */
export const writeSiteFile = (site: Site): string => `${JSON.stringify(site, null, 2)}\n`;

/** Ending of site files. */
export const SITE_FILE_ENDING = '.cleartap.json';
