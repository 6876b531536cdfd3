import type { Drive } from '../destinations';
import type { CameIn, Cause, Exchange, Situation } from '../routing';

/** The moment asked about; null for all times. */
export interface CourseMoment {
  at: number;
  situation: Situation;
}

/** A course while it is drawn: places that stand once each, and the ways between them. */
export interface Sheet {
  readonly exchange: Exchange;
  readonly moment: CourseMoment | null;
  /** how outside callers come to the entry; none: from any phone of ours */
  readonly cameIn: readonly CameIn[];
  /** a place that is not looked at for ways of its own; gives its id */
  add(id: string, kind: string, label: string, lands: boolean): string;
  way(from: string, to: string, when: string, drive: Drive): void;
  /** a destination, or a later part of one, whose ways are looked at too; gives its id */
  place(id: string, part: number): string;
  /** the place where calls are released for a cause */
  ending(cause: Cause): string;
}
