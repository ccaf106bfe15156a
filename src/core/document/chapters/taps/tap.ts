import type { TapUse } from '../../../base/tap-uses.ts';
import type { RecordingSchedule } from '../../../storage/schedule.ts';

export interface Tap {
  readonly id: string;
  readonly cameraId: string;
  readonly streamId: string;
  readonly destinationId: string;
  readonly use: TapUse;
  readonly protocol: 'rtsp';
  readonly schedule: RecordingSchedule;
}
