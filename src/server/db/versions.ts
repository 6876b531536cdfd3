import { rows, type Reader } from './pool';

/** Where draft and live stand. */
export interface Versions {
  draft: number;
  /** number of the live revision; 0: nothing was ever live */
  live: number;
  /** the draft version that the live revision was made of; -1: of a part of one */
  liveDraft: number;
}

/** Where draft and live stand, in one query. */
export async function readVersions(c: Reader): Promise<Versions> {
  const [found] = await rows<Record<keyof Versions, number>>(
    c,
    `SELECT (SELECT version FROM draft WHERE id = 1) AS draft, COALESCE(r.number, 0) AS live, IF(r.left_keys IS NULL, COALESCE(r.draft_version, 0), -1) AS liveDraft
     FROM (SELECT 1) one LEFT JOIN revision r ON r.number = (SELECT MAX(number) FROM revision)`,
  );
  return { draft: Number(found!.draft), live: Number(found!.live), liveDraft: Number(found!.liveDraft) };
}
