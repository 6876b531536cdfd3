'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { ObjectKind } from '@/core/plan';
import { CourseView, CourseWaits } from '@/ui/course-view';
import { Wrong } from '@/ui/controls';
import type { Around } from './form-data';
import { Picture } from './picture';
import { PlanChoice } from './plan-choice';
import { WeekStrip, type RuleNames } from './week-strip';
import { useAsked } from './use-asked';

/** Which week stands beneath a course: what its calls are called, and its time rules. */
export interface WeekBeneath {
  title?: string;
  ruleNames?: RuleNames | undefined;
}

/** The course of a call that comes to an object, with its week beneath where it has one: in the draft, and by choice in what is live or in any revision. */
export function CourseHere({
  around,
  kind,
  id,
  week,
}: {
  around: Promise<Around>;
  kind: ObjectKind;
  id: string;
  week?: WeekBeneath;
}) {
  const [of, setOf] = useState('draft');
  return (
    <>
      <Flex justify="flex-end" maxW="760px" mb="6px">
        <PlanChoice of={of} onChoose={setOf} label="Course and week in which plan" />
      </Flex>
      {of === 'draft' ? <Picture around={around} course /> : <There kind={kind} id={id} of={of} />}
      {week ? (
        <Box maxW="760px" mt="14px">
          <WeekStrip kind={kind} id={id} of={of} {...week} {...(of === 'draft' ? {} : { ruleNames: undefined })} />
        </Box>
      ) : null}
    </>
  );
}

function There({ kind, id, of }: { kind: ObjectKind; id: string; of: string }) {
  const { value, wrong } = useAsked('courseThere', { params: { kind, id }, query: { of } });
  if (wrong) return <Wrong>{wrong}</Wrong>;
  if (!value) return <CourseWaits />;
  const where = of === 'live' ? 'what is live' : `revision ${of}`;
  return (
    <Box data-testid="picture">
      {value.label === null ? (
        <Box color="quiet">It is not in {where}.</Box>
      ) : value.course ? (
        <CourseView course={value.course} />
      ) : (
        <Box color="quiet">
          No call comes to {value.label} in {where}.
        </Box>
      )}
    </Box>
  );
}
