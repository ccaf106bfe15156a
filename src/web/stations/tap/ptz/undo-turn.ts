import type { HandQuantity } from '../../../../core/document/chapters/journal/hand-quantities.ts';
import type { SiteCommand } from '../../../../core/document/site-commands.ts';
import { cameraSubject } from '../../../../core/document/subject.ts';

/** What was once measured of a head counts no more: it was mistaken, or mended since. */
export const takeBack = (cameraId: string, quantity: HandQuantity): SiteCommand => ({
  kind: 'withdrawReading',
  about: cameraSubject(cameraId),
  subject: cameraSubject(cameraId),
  quantity,
});
