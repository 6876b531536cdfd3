import { directoryLists, scopeOfAttendant, takesExtensions } from '../destinations';
import type { AttendantKey, Extension, Plan } from '../plan';

/** An attendant or directory at which callers dial extensions or spell names. */
export interface DialledAtPlace {
  kind: 'attendant' | 'directory';
  id: string;
  /** whether an extension is among those that it takes */
  takes: (extension: Extension) => boolean;
}

const known = new WeakMap<Plan, readonly DialledAtPlace[]>();

/** All places of a plan at which extensions are dialled; found once. */
export function placesOf(plan: Plan): readonly DialledAtPlace[] {
  let found = known.get(plan);
  if (!found) {
    const { attendants, attendantKeys, directories } = plan;
    const keys = new Map<string, AttendantKey[]>();
    for (const k of attendantKeys) keys.set(k.attendant, [...(keys.get(k.attendant) ?? []), k]);
    const taking = attendants.filter((a) => takesExtensions(a, keys.get(a.id) ?? []));
    known.set(
      plan,
      (found = [
        ...taking.map((a): DialledAtPlace => ({ kind: 'attendant', id: a.id, takes: scopeOfAttendant(a) })),
        ...directories.map((d): DialledAtPlace => ({
          kind: 'directory',
          id: d.id,
          takes: (e) => directoryLists(d, e),
        })),
      ]),
    );
  }
  return found;
}
