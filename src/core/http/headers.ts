/** One line of a head, of HTTP (RFC 9112 §5) or of RTSP (RFC 2326 §4.2). */
export interface Header {
  readonly name: string;
  readonly value: string;
}
interface Headed {
  readonly headers: readonly Header[];
}

/** Reads “Name: value” lines; what has no colon behind a name is no header. */
export const readHeaderLines = (lines: readonly string[]): readonly Header[] =>
  lines.flatMap((line) => {
    const at = line.indexOf(':');
    return at > 0 ? [{ name: line.slice(0, at).trim(), value: line.slice(at + 1).trim() }] : [];
  });

/** First value of a header; names compare in any letter case. */
export function headerOf({ headers }: Headed, name: string): string | undefined {
  const wanted = name.toLowerCase();
  return headers.find((header) => header.name.toLowerCase() === wanted)?.value;
}
/** All values of a header, in the order they came. */
export function headersOf({ headers }: Headed, name: string): readonly string[] {
  const wanted = name.toLowerCase();
  return headers.filter((header) => header.name.toLowerCase() === wanted).map(({ value }) => value);
}
