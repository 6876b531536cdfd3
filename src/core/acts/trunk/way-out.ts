/** A rule for calls that leave, as people of a country dial them. */
export interface WayOut {
  name: string;
  map: string;
  strip: number;
  reading: 'national' | 'international';
}
