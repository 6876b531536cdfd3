'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { DraftKind } from '@/core/plan';
import { useSettled } from '@/ui/settled';
import { SEVERITY } from './severity';
import { useAsked } from './use-asked';

/** Fields whose values can get in the way of calls. */
const WATCHED: ReadonlySet<string> = new Set([
  'digits',
  'siteCode',
  'outsidePrefix',
  'map',
  'calledMap',
  'channels',
  'keptForIncoming',
  'keptForEmergency',
]);

const ASK_AFTER_MS = 350;

/** What would be wrong or doubtful with a field as it is typed: said beneath it before anything is saved. */
export function Foreseen({
  kind,
  id,
  field,
  typed,
  more,
}: {
  kind: DraftKind;
  /** null: the object is not there yet */
  id: string | null;
  field: string;
  /** what is typed; undefined: nothing is */
  typed: unknown;
  /** what else is typed of the object */
  more?: Record<string, unknown>;
}) {
  const set = WATCHED.has(field) && typed !== undefined && typed !== '' ? { ...more, [field]: typed } : null;
  const settled = useSettled(JSON.stringify(set), ASK_AFTER_MS);
  const asked = useAsked(
    'foresee',
    settled === 'null' ? null : { body: { kind, id, set: JSON.parse(settled) as Record<string, unknown> } },
  );
  // What was asked of another text says nothing of this one.
  if (!asked.value || settled !== JSON.stringify(set)) return null;
  return asked.value.problems.map((p, i) => (
    <Box key={i} role="status" fontSize="13px" mt="3px" data-testid="foreseen">
      <chakra.b color={SEVERITY[p.severity].colour}>{SEVERITY[p.severity].word}</chakra.b> {p.sentence}
    </Box>
  ));
}
