import { childOf, textIn } from '../envelope.ts';
import { operation } from '../operation.ts';
import { momentOf, wholeIn } from '../read-values.ts';

// Source: ONVIF Recording Search §5.4.

/** What lies on the device's own store. */
export interface RecordingSummary {
  readonly recordings: number | null;
  readonly fromUnixMs: number | null;
  readonly toUnixMs: number | null;
}

export const GET_RECORDING_SUMMARY = operation({
  service: 'search',
  name: 'GetRecordingSummary',
  write: () => '',
  read: (answer): RecordingSummary => {
    const summary = childOf(answer, 'Summary');
    return {
      recordings: wholeIn(summary, 'NumberRecordings'),
      fromUnixMs: momentOf(textIn(summary, 'DataFrom')),
      toUnixMs: momentOf(textIn(summary, 'DataUntil')),
    };
  },
});
