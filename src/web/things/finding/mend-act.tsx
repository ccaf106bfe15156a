import type { Finding } from '../../../core/findings/finding.ts';
import { useCarryOut, useMends } from './use-mends.ts';

/** The first remedy of a finding that one touch carries out, where a whole card would be too much. */
export function MendAct({ cameraId, finding }: { cameraId: string; finding: Finding }) {
  const [mend] = useMends(cameraId, [finding.rule]).get(finding.rule) ?? [];
  const carryOut = useCarryOut();
  if (!mend) return null;
  return (
    <button
      type="button"
      onClick={() => carryOut(mend)}
      className="inline-flex min-h-7 items-center text-left text-small font-strong text-verdigris hover:underline pointer-coarse:min-h-11"
    >
      {mend.text}
    </button>
  );
}
