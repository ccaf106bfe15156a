import type { TapUse } from '../base/tap-uses.ts';
import type { PowerWay } from '../base/ways.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import { type Link, MEDIUM_OF_WAY } from '../document/chapters/links/link.ts';
import { UNMEASURED_LINK } from '../document/chapters/links/link-fields.ts';
import type { Site } from '../document/site.ts';
import type { OneCommand } from '../document/site-commands.ts';
import { cameraSubject, gearSubject } from '../document/subject.ts';

// What is done to several cameras at once, as the commands that would do it to each.

export const chooseForAll = (cameras: readonly Camera[], modelId: string): readonly OneCommand[] =>
  cameras
    .filter((camera) => camera.modelId !== modelId)
    .map((camera) => ({ kind: 'chooseModel', cameraId: camera.id, modelId }));

/**
 * Every camera drawn by one destination for one use: its first stream to record, its last one to watch, which is the leanest
 * as cameras list them. One that is drawn so already is left as it is.
 */
export function tapForAll(
  site: Site,
  cameras: readonly Camera[],
  { destinationId, use }: { readonly destinationId: string; readonly use: TapUse },
  newId: () => string,
): readonly OneCommand[] {
  return cameras.flatMap((camera): readonly OneCommand[] => {
    const isDrawn = site.taps.some(
      (tap) => tap.cameraId === camera.id && tap.destinationId === destinationId && tap.use === use,
    );
    const stream = use === 'record' || use === 'still' ? camera.streams[0] : camera.streams.at(-1);
    if (isDrawn || !stream) return [];
    const schedule = { mode: 'continuous' } as const;
    const tap = {
      id: newId(),
      cameraId: camera.id,
      streamId: stream.id,
      destinationId,
      use,
      protocol: 'rtsp' as const,
      schedule,
    };
    return [{ kind: 'addTap', tap, judged: 'not judged yet' }];
  });
}

/** Every camera fed in one way, and joined to the gear that feeds it so; a cable that brings it from elsewhere is moved. */
export function feedForAll(
  site: Site,
  cameras: readonly Camera[],
  { way, gearId }: { readonly way: PowerWay; readonly gearId: string | null },
  newId: () => string,
): readonly OneCommand[] {
  const medium = MEDIUM_OF_WAY[way];
  return cameras.flatMap(({ id, feed }): readonly OneCommand[] => {
    const commands: OneCommand[] = [
      { kind: 'setFeed', cameraId: id, feed: { way, sun: feed?.sun ?? null, charge: feed?.charge ?? null } },
    ];
    if (medium && gearId !== null) {
      const to = cameraSubject(id);
      const from = gearSubject(gearId);
      const own = site.links.find((link) => link.to === to && link.medium === medium);
      const link: Link = own ? { ...own, from, route: null } : { id: newId(), from, to, medium, ...UNMEASURED_LINK };
      if (own?.from !== from) commands.push({ kind: 'putLink', link });
    }
    return commands;
  });
}
