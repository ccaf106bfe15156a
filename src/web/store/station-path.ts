import type { StationId } from '../../core/stations/registry.ts';

/** Where one camera is worked on at one station. */
export const stationPath = (siteId: string | undefined, cameraId: string | undefined, station: StationId): string =>
  `/site/${siteId}/camera/${cameraId}/${station}`;
