/** What an atlas is asked for, and what it is held against: as the address has it. */
export interface Asked {
  phone: string;
  at: string;
  under: string;
  /** draft, live or the number of a revision */
  of: string;
  /** another phone, moment or plan; null: the same */
  withPhone: string | null;
  withAt: string | null;
  withOf: string | null;
}

/** Whether two atlases are held against one another. */
export const isCompared = ({ withPhone, withAt, withOf }: Asked): boolean =>
  withPhone !== null || withAt !== null || withOf !== null;

export function pathOf({ phone, at, under, of, withPhone, withAt, withOf }: Asked): string {
  const query = new URLSearchParams({
    phone,
    ...(at === 'now' ? {} : { at }),
    ...(under ? { under } : {}),
    ...(of === 'draft' ? {} : { of }),
    ...(withPhone ? { withPhone } : {}),
    ...(withAt ? { withAt } : {}),
    ...(withOf ? { withOf } : {}),
  });
  return `/atlas?${query.toString()}`;
}
