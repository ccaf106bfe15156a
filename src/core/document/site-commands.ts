import { kept } from './chapters/journal/condense.ts';
import { JOURNAL_COMMANDS, type JournalCommand } from './chapters/journal/journal-commands.ts';
import { CHAPTERS } from './chapters/registry.ts';
import { type Changed, clippedEntry, type Handlers, type Recorded, type Stamp, words } from './command-parts.ts';
import { HEAD_COMMANDS, type HeadCommand } from './head-commands.ts';
import type { Site } from './site.ts';

type Chapters = typeof CHAPTERS;
/** What the handlers of a chapter take beside the site. */
type CommandOf<H> = Parameters<Extract<H[keyof H], (site: Site, command: never) => Changed>>[1];

/** Every way the plan changes, by chapter: each can be taken back. */
export type OneCommand = { [K in keyof Chapters]: CommandOf<Chapters[K]['commands']> }[keyof Chapters] | HeadCommand;
/** Several at once: one line of the log, and undo takes all of them back. */
export interface ManyCommands {
  readonly kind: 'many';
  readonly commands: readonly OneCommand[];
  readonly what: string;
}
export type PlanningCommand = OneCommand | ManyCommands;
/** Every way a site changes. Each command leaves one entry in the journal, with its numbers. */
export type SiteCommand = PlanningCommand | JournalCommand;

// each chapter types its own handlers, and this type is made of theirs
const PLANNERS: Handlers<OneCommand> = Object.assign(
  {},
  HEAD_COMMANDS,
  ...Object.values(CHAPTERS).map((one) => one.commands),
);

/**
 * Applies a command; a command about something that is not there is a bug of the caller and raises a RangeError. What it
 * writes into the journal, whoever said it, is clipped to what a site can keep, and the journal to its limits. A command of
 * the journal cannot touch the plan, and none of the plan the journal but by its one line.
 * @throws RangeError for a command about something that is not there
 */
export function applyCommand(site: Site, command: SiteCommand, stamp: Stamp): Site {
  if (isOfJournal(command)) return withEntry(site, recordedBy(site, command), stamp);
  const { site: changed, log, revokes = [] } = changedBy(site, command);
  return withEntry({ ...changed, journal: site.journal }, { ...log, source: '', facts: [], revokes }, stamp);
}

/** The site with one more entry in its journal. */
export function withEntry(site: Site, { revokes = [], payload = null, ...words }: Recorded, stamp: Stamp): Site {
  const entry = clippedEntry({ id: stamp.newId(), at: stamp.at, ...words, payload, revokes, isPast: false });
  return { ...site, journal: kept([...site.journal, entry], stamp.newId) };
}

const isOfJournal = (command: SiteCommand): command is JournalCommand => Object.hasOwn(JOURNAL_COMMANDS, command.kind);

function changedBy(site: Site, command: PlanningCommand): Changed {
  return command.kind === 'many' ? changedByAll(site, command) : changedByOne(site, command);
}
function changedByAll(site: Site, { commands, what }: ManyCommands): Changed {
  let changed = site;
  const revokes: string[] = [];
  const told: string[] = [];
  for (const command of commands) {
    const { site: next, log, revokes: taken = [] } = changedByOne(changed, command);
    changed = next;
    revokes.push(...taken);
    told.push(log.text);
  }
  return { site: changed, log: words('edit', 'site', what, { each: told.join('; ') }), revokes };
}
function changedByOne<C extends OneCommand>(site: Site, command: C): Changed {
  const handle = PLANNERS[command.kind] as (site: Site, command: C) => Changed; // the table is typed by kind
  return handle(site, command);
}
function recordedBy<C extends JournalCommand>(site: Site, command: C): Recorded {
  const handle = JOURNAL_COMMANDS[command.kind] as (site: Site, command: C) => Recorded; // the same
  return handle(site, command);
}
