import type { Finding } from '../../../core/findings/finding.ts';
import { Button } from '../../ui/button.tsx';
import { useCarryOut, useMends } from './use-mends.ts';

/** The first remedy of a finding that one touch carries out, where a whole card would be too much. */
export function MendAct({ cameraId, name, finding }: { cameraId: string; name: string; finding: Finding }) {
  const [mend] = useMends(cameraId, [finding.rule]).get(finding.rule) ?? [];
  const carryOut = useCarryOut();
  if (!mend) return null;
  return (
    <Button aria-label={`${mend.text}: ${name}`} isSentence className="mt-1 text-small" onClick={() => carryOut(mend)}>
      {mend.text}
    </Button>
  );
}
