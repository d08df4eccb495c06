export { calendarDate, type Day, dayOf, formatDay, monthsBetween, parseDay } from './day';
export { type DateInterval, formatDateText, type MaybeDay, parseDateText, readDay } from './interval';
export { type MessyDate, parseMessyDate } from './messy-date';
export { parseMessyDay } from './messy';
export { findCountedPhase, findServiceEnd, type PhaseName, PHASES, type ServicePhase } from './service';
export type { StepDays } from './step-days';
export {
  type Block,
  Calendar,
  type CrewShare,
  type Freeze,
  type Occurrence,
  type Placed,
  type Slot,
  ROOM_WITHIN,
  type WindowRule,
  type Within
} from './calendar';
export { findRecurrenceFault, type Recurrence, type RecurrenceFault } from './recurrence';
export { dayOfMinute, timeOfMinute } from './zone';
