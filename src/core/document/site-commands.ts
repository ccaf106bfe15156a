import { ASSUMPTION_COMMANDS, type AssumptionCommand } from './chapters/assumptions/assumption-commands.ts';
import { CAMERA_COMMANDS, type CameraCommand } from './chapters/cameras/camera-commands.ts';
import { COSTING_COMMANDS, type CostingCommand } from './chapters/costing/costing-commands.ts';
import { DESTINATION_COMMANDS, type DestinationCommand } from './chapters/destinations/destination-commands.ts';
import { GEAR_COMMANDS, type GearCommand } from './chapters/gear/gear-commands.ts';
import { JOURNAL_COMMANDS, type JournalCommand } from './chapters/journal/journal-commands.ts';
import { LINK_COMMANDS, type LinkCommand } from './chapters/links/link-commands.ts';
import { MODEL_COMMANDS, type ModelCommand } from './chapters/models/model-commands.ts';
import { PLAN_COMMANDS, type PlanCommand } from './chapters/plan/plan-commands.ts';
import { SKY_COMMANDS, type SkyCommand } from './chapters/sky/sky-commands.ts';
import { TAP_COMMANDS, type TapCommand } from './chapters/taps/tap-commands.ts';
import { type Changed, clippedEntry, type Handlers, type Stamp } from './command-parts.ts';
import { condenseEvidence, condenseLog } from './condense.ts';
import type { Site } from './site.ts';

/** Every way a site changes, by chapter. Each command leaves one line in the log, with its numbers. */
export type SiteCommand =
  | CameraCommand
  | ModelCommand
  | GearCommand
  | LinkCommand
  | PlanCommand
  | SkyCommand
  | CostingCommand
  | AssumptionCommand
  | DestinationCommand
  | TapCommand
  | JournalCommand;

const COMMANDS: Handlers<SiteCommand> = {
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
  ...JOURNAL_COMMANDS,
};

/**
 * Applies a command; a command about something that is not there is a bug of the caller and raises a RangeError. What it
 * writes into the record, whoever said it, is clipped to what a site can keep, and the record to its limits.
 */
export function applyCommand(site: Site, command: SiteCommand, stamp: Stamp): Site {
  const { site: changed, log } = changeBy(site, command, stamp);
  const entry = clippedEntry({ id: stamp.newId(), at: stamp.at, ...log });
  return {
    ...changed,
    evidence: changed.evidence === site.evidence ? site.evidence : condenseEvidence(changed.evidence),
    log: condenseLog([...changed.log, entry], stamp),
  };
}

function changeBy<C extends SiteCommand>(site: Site, command: C, stamp: Stamp): Changed {
  const handle = COMMANDS[command.kind] as (site: Site, command: C, stamp: Stamp) => Changed; // the table is typed by kind
  return handle(site, command, stamp);
}
