import { useState } from 'react';
import type { Finding } from '../../../core/findings/finding.ts';
import type { SiteMend } from '../../../core/lanes/mends.ts';
import { Button } from '../../ui/button.tsx';
import { useCarryOut, useMends } from './use-mends.ts';

/** The first remedy of a finding that one touch carries out, where a whole card would be too much. */
export function MendAct({ cameraId, name, finding }: { cameraId: string; name: string; finding: Finding }) {
  const { rule } = finding;
  const tried = useMends(cameraId, [rule]).get(rule);
  const [last, setLast] = useState<{ readonly rule: string; readonly mend: SiteMend | undefined }>();
  if (tried && (last?.rule !== rule || last.mend !== tried[0])) setLast({ rule, mend: tried[0] });
  const carryOut = useCarryOut();
  // while it is tried on the site as it is now it keeps its place, so that no row moves under a finger, and cannot be pressed
  const mend = tried ? tried[0] : last?.rule === rule ? last.mend : undefined;
  if (!mend) return null;
  return (
    <Button
      aria-label={`${mend.text}: ${name}`}
      isSentence
      className="mt-1 text-small"
      disabled={!tried}
      onClick={() => carryOut(mend)}
    >
      {mend.text}
    </Button>
  );
}
