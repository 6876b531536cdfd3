/** The parts of a path of RFC 3986, decoded; null when an escape is none of UTF-8. */
export function segmentsOf(path: string): string[] | null {
  try {
    return path.split('/').slice(1).map(decodeURIComponent);
  } catch {
    return null;
  }
}
