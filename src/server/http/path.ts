import { Refused } from '../access/rights';

/** A revision's number from a path; 404 when it is none. */
export function revisionNumber(text: string | undefined): number {
  if (!/^[1-9][0-9]{0,8}$/.test(text ?? ''))
    throw new Refused(404, 'no-such-revision', `“${text}” is no revision; they are numbered from 1.`, 'revision');
  return Number(text);
}
