const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});
const longDay = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' });

// One way to say a moment, in the time of this computer. Browsers differ in the comma between its parts.

/** “09:04:12”. */
export const sayClock = (at: string): string => clock.format(new Date(at));

/** “Thursday 26 November 2026”. */
export const sayDay = (at: string): string => longDay.format(new Date(at)).replaceAll(',', '');

/** When something was taken, as a person says it; it does not grow stale on the screen as “14 seconds ago” would. */
export function sayWhen(at: string): string {
  const when = new Date(at);
  const isToday = when.toDateString() === new Date().toDateString();
  return isToday ? `today ${clock.format(when)}` : day.format(when).replaceAll(',', '');
}
