/** `Mon 23:40`: an epoch minute on the clock of a zone. */
export const clockOf = (minute: number, zone = 'UTC'): string =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit'
  }).format(minute * 60_000);
