import type { Site } from '../../document/site.ts';
import type { Finding } from '../../findings/finding.ts';
import { findingsOf, judgeRows } from '../../findings/rule.ts';
import type { PowerJudge } from './power-judgement.ts';
import { POWER_RULES } from './power-rules.ts';
import { switchFacts } from './switch-facts.ts';

/** A finding of a switch itself, which stands whether a camera hangs on it or not. */
export interface GearFinding {
  readonly gear: string;
  readonly finding: Finding;
}

/** What is wrong with the switches of a site: cables without a port, access points without power. */
export function gearFindings(site: Site, judge: PowerJudge): readonly GearFinding[] {
  return site.gear.flatMap((gear) =>
    gear.kind === 'switch'
      ? findingsOf(judgeRows(POWER_RULES, switchFacts(judge, gear))).map((finding) => ({ gear: gear.name, finding }))
      : [],
  );
}
