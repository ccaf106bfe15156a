import { randomUUID } from 'node:crypto';
import type { ScanRange } from '../../core/net/scan-range.ts';
import { ScanMachine } from '../../core/scan/scan-machine.ts';
import type { ScanPace } from '../../core/scan/scan-plan.ts';
import type { ScanEvent } from '../../core/scan/scan-types.ts';
import { toDoors } from '../doors-transport.ts';
import { drive, type World } from '../drive.ts';

export interface ScanRun {
  readonly range: ScanRange | null;
  readonly ports: readonly number[];
  readonly pace: ScanPace;
  readonly isDiscovering: boolean;
}

/** One sweep. It ends by itself, or at once when `signal` aborts: then too its summary is told. */
export async function runScan(
  run: ScanRun,
  world: World,
  signal: AbortSignal,
  onEvent: (event: ScanEvent) => void,
): Promise<void> {
  const machine = new ScanMachine({ ...run, messageId: randomUUID() });
  await drive({ machine, transport: toDoors, world, signal, credentials: null, what: 'the scan', onEffect: onEvent });
}
