import type { Finding } from '../../../core/findings/finding.ts';
import type { SiteMend } from '../../../core/lanes/mends.ts';
import { FindingCard } from '../../ui/finding-card.tsx';
import { useCarryOut, useMends } from './use-mends.ts';

interface CameraFindingsProps {
  readonly cameraId: string;
  readonly findings: readonly Finding[];
  /** Which of the mends belong here, where one rule found something in several places. */
  readonly isOffered?: (mend: SiteMend) => boolean;
}

/** Findings of one camera, each with what one touch would mend. */
export function CameraFindings({ cameraId, findings, isOffered = () => true }: CameraFindingsProps) {
  const mends = useMends(
    cameraId,
    findings.map(({ rule }) => rule),
  );
  const carryOut = useCarryOut();
  return (
    <div className="flex flex-col gap-3">
      {findings.map((finding) => (
        <FindingCard
          key={finding.rule}
          finding={finding}
          mends={mends.get(finding.rule)?.filter(isOffered) ?? []}
          onMend={carryOut}
        />
      ))}
    </div>
  );
}
