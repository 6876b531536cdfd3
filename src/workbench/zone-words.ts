/** `Europe/London` as `London (Europe)`. */
export function zoneWords(zone: string): string {
  const [region, ...place] = zone.replaceAll('_', ' ').split('/');
  return place.length === 0 ? zone : `${place.reverse().join(', ')} (${region})`;
}

/** The day that it is in a zone, ISO 8601, so many days from now. */
export function dayIn(zone: string | null, days = 0): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone: zone ?? undefined }).format(Date.now() + days * 86_400_000);
}
