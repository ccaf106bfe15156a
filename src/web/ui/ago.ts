import { formatDistanceToNowStrict } from 'date-fns';

/** “14 seconds ago”. */
export const ago = (at: string): string => `${formatDistanceToNowStrict(new Date(at))} ago`;
