const MOST_CHARS = 512;
/** Words that stand before the number of a channel. */
const CHANNEL = /(?:^|[/?&_.=-])(?:ch|chn|channel|channels|cam|camera|input)[=/_-]?0{0,2}(\d{1,4})(?!\d)/i;
/** Three and four digits are a channel and one of its streams: 102 is the second stream of channel 1 [A]. */
const WITH_STREAM = 100;

/** The channel of a recorder that a path names, counted as the path counts; `null` where it names none. `/ch02/sub` → 2. */
export function channelOfPath(path: string): number | null {
  const digits = CHANNEL.exec(path.slice(0, MOST_CHARS))?.[1];
  if (digits === undefined) return null;
  const number = Number(digits);
  return number >= WITH_STREAM ? Math.floor(number / WITH_STREAM) : number;
}

/**
 * Which of these paths may be a camera’s own: those of its channel, or of none. Where it names no channel and several are
 * offered, nobody can tell which is its own, and none that names one is.
 * @param own a path of the camera, even where nothing is at it
 */
export function pathsOfChannel(paths: readonly string[], own: string, channel: number | null): readonly string[] {
  const ours = channel ?? channelOfPath(own);
  const named = new Set(paths.flatMap((path) => channelOfPath(path) ?? []));
  return paths.filter((path) => {
    const theirs = channelOfPath(path);
    return theirs === null || (ours === null ? named.size < 2 : theirs === ours);
  });
}
