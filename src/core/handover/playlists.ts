import { XMLBuilder } from 'fast-xml-parser';
import { oneLine } from '../base/control-signs.ts';
import type { Site } from '../document/site.ts';
import { plainUrlOf } from '../document/stream-address.ts';

/** One entry of a playlist: a stream that a destination draws. */
export interface PlaylistEntry {
  readonly title: string;
  /** Without account or secret: the viewer asks for them; where they belong in the path, placeholders stand in it. */
  readonly url: string;
}

/** What a destination draws, in the order of the site's cameras; a stream that it draws for two uses stands once. */
export function playlistOf(site: Site, destinationId: string): readonly PlaylistEntry[] {
  const entries = new Map<string, PlaylistEntry>();
  for (const camera of site.cameras)
    for (const stream of camera.streams)
      if (site.taps.some((tap) => tap.destinationId === destinationId && tap.streamId === stream.id))
        entries.set(stream.id, { title: `${camera.name}, ${stream.label}`, url: plainUrlOf(camera, stream) });
  return [...entries.values()];
}

/**
 * Entries as an extended M3U playlist in UTF-8; live streams have no length, which is written −1.
 * Source: RFC 8216 §4.3.1.1 (#EXTM3U), §4.3.2.1 (#EXTINF); the −1 is how players write “without end”.
 */
export const asM3u8 = (entries: readonly PlaylistEntry[]): string =>
  ['#EXTM3U', ...entries.flatMap(({ title, url }) => [`#EXTINF:-1,${oneLine(title)}`, oneLine(url)]), ''].join('\n');

/** Entries as XSPF. Source: XSPF version 1, §4 (playlist, trackList, track, location, title). */
export function asXspf(title: string, entries: readonly PlaylistEntry[]): string {
  const builder = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: false });
  return builder.build({
    '?xml': { '@_version': '1.0', '@_encoding': 'UTF-8' },
    playlist: {
      '@_version': '1',
      '@_xmlns': 'http://xspf.org/ns/0/',
      title: oneLine(title),
      trackList: { track: entries.map((entry) => ({ location: oneLine(entry.url), title: oneLine(entry.title) })) },
    },
  });
}
