import type { ReactNode } from 'react';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Finding } from '../../../core/findings/finding.ts';
import { Drop } from '../../ui/drop.tsx';
import { Panel } from '../../ui/panel.tsx';
import { CameraFindings } from './camera-findings.tsx';

interface FindingsPanelProps {
  readonly cameraId: string;
  readonly findings: readonly Finding[];
  /** What stands there when nothing was found. */
  readonly children?: ReactNode;
}

/** What a station found of one camera, beside the inputs; on a phone before them. */
export const FindingsPanel = ({ cameraId, findings, children }: FindingsPanelProps) => (
  <div className="min-w-0 max-lg:-order-1">
    <Panel title="Findings">
      {findings.length > 0 ? <CameraFindings cameraId={cameraId} findings={findings} /> : children}
    </Panel>
  </div>
);

/** A verdict with its words, where nothing was found. */
export const NothingFound = ({ verdict, children }: { verdict: Verdict; children: ReactNode }) => (
  <p className="flex items-center gap-2">
    <Drop verdict={verdict} /> {children}
  </p>
);
