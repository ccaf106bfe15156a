import type { Entry } from '../../../core/document/chapters/journal/entry.ts';
import type { Site } from '../../../core/document/site.ts';
import { cameraSubject, streamSubject, tapSubject } from '../../../core/document/subject.ts';
import { thingsOf } from '../../../core/document/subjects.ts';

/** Everything that a line of the log may be about, cameras first. */
export const subjectOptions = (
  site: Site,
  all: string,
): readonly { readonly value: string; readonly label: string }[] => [
  { value: 'site', label: all },
  ...thingsOf(site)
    .toReversed()
    .map(({ subject, item }) => ({ value: subject, label: item.name })),
];

/** Subjects whose lines belong to a thing: of a camera its streams and its taps, of a destination its taps. */
export function subjectsAbout(site: Site, subject: string): ReadonlySet<string> {
  const about = new Set([subject]);
  for (const { id, streams } of site.cameras)
    if (cameraSubject(id) === subject) for (const stream of streams) about.add(streamSubject(stream.id));
  for (const { id, cameraId, destinationId } of site.taps)
    if (cameraSubject(cameraId) === subject || `destination:${destinationId}` === subject) about.add(tapSubject(id));
  return about;
}

/** Whether a line is about one of these, holds all words that are sought, and is of a kind. */
export const isSought = (entry: Entry, about: ReadonlySet<string> | null, words: readonly string[]): boolean => {
  const { subject: line, facts, payload } = entry;
  const subjects = [line, payload?.of ?? line, ...facts.map(({ subject }) => subject)];
  if (about && !subjects.some((subject) => about.has(subject))) return false;
  if (words.length === 0) return true;
  const text = [entry.text, ...entry.refs.flatMap(({ name, value }) => [name, value])].join(' ').toLowerCase();
  return words.every((word) => text.includes(word));
};
