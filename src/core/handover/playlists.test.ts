import { expect, test } from '@jest/globals';
import { XMLParser } from 'fast-xml-parser';
import { apply, mill, record } from '../../../tests/support/sites.ts';
import { asM3u8, asXspf, playlistOf } from './playlists.ts';

const site = apply(
  mill(),
  record('tap-1', 'boots'),
  record('tap-2', 'sluice'),
  record('tap-3', 'sluice', 'sluice-sub'),
);

test('a playlist holds what a destination draws, in the site’s order, without accounts', () => {
  expect(playlistOf(site, 'loft')).toEqual([
    { title: 'sluice, main', url: 'rtsp://10.77.4.21/live/main' },
    { title: 'sluice, sub', url: 'rtsp://10.77.4.21/live/sub' },
    { title: 'boots, main', url: 'rtsp://10.77.4.27:8554/live/main' },
  ]);
  expect(playlistOf(site, 'hub')).toEqual([]);
});

test('M3U8: a head, then a title line and a URL line each; a name cannot begin an entry of its own', () => {
  const text = asM3u8([{ title: 'Weir\nrtsp://evil/', url: 'rtsp://10.77.4.21/a' }]);
  expect(text).toBe('#EXTM3U\n#EXTINF:-1,Weir rtsp://evil/\nrtsp://10.77.4.21/a\n');
});

test('XSPF: another reader gets the same back, whatever stands in a name', () => {
  const entries = [
    { title: 'Weir & <Gate> "7"', url: 'rtsp://10.77.4.21/a?x=1&y=2' },
    { title: ']]> ü', url: 'rtsp://10.77.4.22/b' },
  ];
  const read = new XMLParser({ ignoreAttributes: false }).parse(asXspf('Alder Mill', entries));
  expect(read.playlist['@_xmlns']).toBe('http://xspf.org/ns/0/');
  expect(read.playlist['@_version']).toBe('1');
  expect(read.playlist.title).toBe('Alder Mill');
  expect(read.playlist.trackList.track).toEqual(entries.map(({ title, url }) => ({ location: url, title })));
});
