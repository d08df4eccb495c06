import { randomBytes } from 'node:crypto';

/** Calendars somebody has sent to be subscribed to: in memory alone, a few, until the server ends. */
const MOST = 16;
const MOST_CHARACTERS = 8 * 1024 * 1024;
const calendars = new Map<string, string>();

/** Takes a calendar, in the place of one sent before where its id is named; the id, or undefined where it is too long or unknown. */
export function keepCalendar(text: string, id?: string): string | undefined {
  if (text.length > MOST_CHARACTERS || (id !== undefined && !calendars.has(id))) return undefined;
  const key = id ?? randomBytes(16).toString('hex');
  // The one that was sent first goes first.
  calendars.delete(key);
  calendars.set(key, text);
  for (const oldest of calendars.keys()) {
    if (calendars.size <= MOST) break;
    calendars.delete(oldest);
  }
  return key;
}

export const calendarOf = (id: string): string | undefined => calendars.get(id);

export const forgetCalendar = (id: string): boolean => calendars.delete(id);
