import { ASSUMPTION_COMMANDS, type AssumptionCommand } from './chapters/assumptions/assumption-commands.ts';
import { CAMERA_COMMANDS, type CameraCommand } from './chapters/cameras/camera-commands.ts';
import { COSTING_COMMANDS, type CostingCommand } from './chapters/costing/costing-commands.ts';
import { DESTINATION_COMMANDS, type DestinationCommand } from './chapters/destinations/destination-commands.ts';
import { GEAR_COMMANDS, type GearCommand } from './chapters/gear/gear-commands.ts';
import { kept } from './chapters/journal/condense.ts';
import { JOURNAL_COMMANDS, type JournalCommand } from './chapters/journal/journal-commands.ts';
import { LINK_COMMANDS, type LinkCommand } from './chapters/links/link-commands.ts';
import { MODEL_COMMANDS, type ModelCommand } from './chapters/models/model-commands.ts';
import { PLAN_COMMANDS, type PlanCommand } from './chapters/plan/plan-commands.ts';
import { SKY_COMMANDS, type SkyCommand } from './chapters/sky/sky-commands.ts';
import { TAP_COMMANDS, type TapCommand } from './chapters/taps/tap-commands.ts';
import { type Changed, clippedEntry, type Handlers, type Recorded, type Stamp } from './command-parts.ts';
import type { Site } from './site.ts';

/** Every way the plan changes, by chapter: each can be taken back. */
export type PlanningCommand =
  | CameraCommand
  | ModelCommand
  | GearCommand
  | LinkCommand
  | PlanCommand
  | SkyCommand
  | CostingCommand
  | AssumptionCommand
  | DestinationCommand
  | TapCommand;
/** Every way a site changes. Each command leaves one entry in the journal, with its numbers. */
export type SiteCommand = PlanningCommand | JournalCommand;

const PLANNERS: Handlers<PlanningCommand> = {
  ...CAMERA_COMMANDS,
  ...MODEL_COMMANDS,
  ...GEAR_COMMANDS,
  ...LINK_COMMANDS,
  ...PLAN_COMMANDS,
  ...SKY_COMMANDS,
  ...COSTING_COMMANDS,
  ...ASSUMPTION_COMMANDS,
  ...DESTINATION_COMMANDS,
  ...TAP_COMMANDS,
};

/**
 * Applies a command; a command about something that is not there is a bug of the caller and raises a RangeError. What it
 * writes into the journal, whoever said it, is clipped to what a site can keep, and the journal to its limits. A command of
 * the journal cannot touch the plan, and none of the plan the journal but by its one line.
 */
export function applyCommand(site: Site, command: SiteCommand, stamp: Stamp): Site {
  if (isOfJournal(command)) return withEntry(site, recordedBy(site, command), stamp);
  const { site: changed, log } = changedBy(site, command);
  return withEntry({ ...changed, journal: site.journal }, { ...log, source: '', facts: [] }, stamp);
}

/** The site with one more entry in its journal. */
export function withEntry(site: Site, { revokes = [], ...words }: Recorded, stamp: Stamp): Site {
  const entry = clippedEntry({ id: stamp.newId(), at: stamp.at, ...words, revokes, isPast: false });
  return { ...site, journal: kept([...site.journal, entry], stamp.newId) };
}

const isOfJournal = (command: SiteCommand): command is JournalCommand => Object.hasOwn(JOURNAL_COMMANDS, command.kind);

function changedBy<C extends PlanningCommand>(site: Site, command: C): Changed {
  const handle = PLANNERS[command.kind] as (site: Site, command: C) => Changed; // the table is typed by kind
  return handle(site, command);
}
function recordedBy<C extends JournalCommand>(site: Site, command: C): Recorded {
  const handle = JOURNAL_COMMANDS[command.kind] as (site: Site, command: C) => Recorded; // the same
  return handle(site, command);
}
