/** When a stream is written. `hoursPerDay` of `events` caps it to a window. */
export type RecordingSchedule =
  | { readonly mode: 'continuous' }
  | { readonly mode: 'window'; readonly hoursPerDay: number }
  | { readonly mode: 'duty'; readonly duty: number }
  | {
      readonly mode: 'events';
      readonly eventsPerDay: number;
      readonly eventS: number;
      readonly preS: number;
      readonly postS: number;
      readonly hoursPerDay?: number;
    };

export function saySchedule(schedule: RecordingSchedule): string {
  switch (schedule.mode) {
    case 'continuous':
      return 'all day';
    case 'window':
      return `${schedule.hoursPerDay} hours a day`;
    case 'duty':
      return `${Math.round(schedule.duty * 100)} % of the day`;
    case 'events':
      return `on events, ${schedule.eventsPerDay} a day`;
  }
}
