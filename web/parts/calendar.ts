/** A moment that is handed to a calendar. */
export interface CalendarMoment {
  readonly id: string;
  /** Epoch ms. */
  readonly at: number;
  /** Left out: ten minutes. */
  readonly until?: number;
  readonly title: string;
  readonly where: string;
}

/** Earlier than the moment by so much, so that whoever is told can be there. */
const ALARM_BEFORE_S = 5 * 60;
const LASTS_MS = 10 * 60_000;

/**
 * Moments as a calendar file (RFC 5545), each with an alarm: a phone that is locked does not ring for a page, its
 * calendar does. The writer is fetched only when it is wanted.
 */
export async function calendarText(moments: readonly CalendarMoment[], now: number): Promise<string> {
  const { default: ical, ICalAlarmType } = await import('ical-generator');
  const calendar = ical({ name: 'Jack Plane', prodId: '//Jack Plane//Clocks//EN' });
  for (const { id, at, until, title, where } of moments) {
    const event = calendar.createEvent({
      id: `${id}@jack-plane`,
      start: new Date(at),
      end: new Date(until ?? at + LASTS_MS),
      stamp: new Date(now),
      summary: title,
      location: where,
    });
    event.createAlarm({ type: ICalAlarmType.display, triggerBefore: ALARM_BEFORE_S, description: title });
    event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: title });
  }
  return calendar.toString();
}
