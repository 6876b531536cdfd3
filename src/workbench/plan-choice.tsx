'use client';

import { useState } from 'react';
import { SelectBox } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { useAsked } from './use-asked';

/** Which plan a page is about: the draft, what is live, or a revision. Revisions are looked up when somebody chooses. */
export function PlanChoice({
  of,
  onChoose,
  label = 'Which plan',
  none,
  before = '',
}: {
  /** draft, live or the number of a revision; empty: none */
  of: string;
  onChoose: (of: string) => void;
  label?: string;
  /** what choosing none is called, where that can be */
  none?: string;
  /** stands before the name of each plan */
  before?: string;
}) {
  const write = useWriting();
  const [wanted, setWanted] = useState(false);
  const { value } = useAsked('revisions', wanted ? {} : null);
  const revisions = value?.revisions ?? [];
  const known = of === '' || of === 'draft' || of === 'live' || revisions.some((r) => String(r.number) === of);
  return (
    <SelectBox
      aria-label={label}
      w="auto"
      maxW="260px"
      value={of}
      onFocus={() => setWanted(true)}
      onPointerDown={() => setWanted(true)}
      onChange={(e) => onChoose(e.target.value)}
      {...(of === 'draft' || of === '' ? {} : { bg: 'plumTint' })}
    >
      {none === undefined ? null : <option value="">{none}</option>}
      <option value="draft">{before}draft</option>
      <option value="live">{before}live</option>
      {known ? null : (
        <option value={of}>
          {before}revision {of}
        </option>
      )}
      {revisions.map((r) => (
        <option key={r.number} value={String(r.number)}>
          {before}revision {r.number}, {write(r.at)}
        </option>
      ))}
    </SelectBox>
  );
}
