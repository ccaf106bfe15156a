import { CHAPTERS } from './chapters/registry.ts';
import { type ChapterName, type Plan, SITE_FORMAT, type Site } from './site.ts';
import { SITE_VERSION } from './version.ts';

const emptyChapters = (): Pick<Plan, ChapterName> => {
  const empty = Object.entries(CHAPTERS).map(([name, chapter]) => [name, chapter.empty]);
  return Object.fromEntries(empty); // the registry is typed by name
};

export const emptySite = (id: string, name: string): Site => ({
  format: SITE_FORMAT,
  version: SITE_VERSION,
  id,
  name,
  notes: '',
  ...emptyChapters(),
  journal: [],
});
