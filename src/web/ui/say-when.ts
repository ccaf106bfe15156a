const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

/** When something was taken, as a person says it; it does not grow stale on the screen as “14 seconds ago” would. */
export function sayWhen(at: string): string {
  const when = new Date(at);
  const isToday = when.toDateString() === new Date().toDateString();
  return isToday ? `today ${clock.format(when)}` : day.format(when).replace(',', '');
}
