import { format, isToday } from 'date-fns';

/** When something was taken, as a person says it; it does not grow stale on the screen as “14 seconds ago” would. */
export function sayWhen(at: string): string {
  const when = new Date(at);
  return isToday(when) ? `today ${format(when, 'HH:mm:ss')}` : format(when, 'd MMM yyyy HH:mm');
}
