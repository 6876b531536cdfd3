'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';
import { Link } from '@/ui/link';
import { ObjectPage } from '@/workbench/object-page';
import { CourseHere } from '@/workbench/course-here';
import type { ReachPlanData } from './data';
import { ReachLine } from './reach-line';
import { Steps } from './steps';

/** One reach plan: whom it looks for, who rings when, and what follows when nobody takes the call. */
export function ReachPlanPage(page: ReachPlanData) {
  const { data, steps, choices, whose } = page;
  return (
    <ObjectPage
      data={data}
      listPath="/reach-plans"
      top={(edit) => (
        <>
          <ReachLine steps={steps} end={edit.value.end as string | null} choices={choices} options={data.options} />
          <CourseHere around={data.around} kind="reachPlan" id={data.object.id!} />
        </>
      )}
      parts={[
        { title: 'Who rings, step by step', draw: () => <Steps data={page} /> },
        { title: 'When nobody takes the call', fields: ['end'] },
        {
          title: 'Looks for',
          draw: () =>
            whose.length === 0 ? (
              <Box color="quiet">Nobody yet. An extension names the plan by which it is looked for, on its page.</Box>
            ) : (
              <>
                {whose.map((e) => (
                  <Flex key={e.id} gap="8px" align="center" minH="26px">
                    <Glyph kind="extension" />
                    <Link href={`/extensions/${e.id}`}>{e.label}</Link>
                  </Flex>
                ))}
              </>
            ),
        },
        { title: 'What outside phones are shown', fields: ['showsCaller'] },
        { title: 'Name, site, digits and note', fields: ['name', 'site', 'digits', 'note'], rare: true },
      ]}
    />
  );
}
