let zone: string | undefined;

/** Keeps whose clocks tell the day. */
export function keepZone(timeZone: string): void {
  zone = timeZone;
}

/** The day it is where the organization is, as an ISO day, whatever the browser's own zone. */
export function localDay(): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(new Date());
}
