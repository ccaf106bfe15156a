export { CameraFindings } from './camera-findings.tsx';
export { FindingsPanel, NothingFound } from './findings-panel.tsx';
export { MendAct } from './mend-act.tsx';
export { useCarryOut, useMends } from './use-mends.ts';
export { WorstFinding } from './worst-finding.tsx';
