'use client';

import { Empty } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';

/** A page whose form its reader may not use: said instead of a form that refuses at the end. */
export function NotYours({ title }: { title: string }) {
  return (
    <Workspace title={title}>
      <Empty>Your role looks at this and does not change it; somebody who may edit here can do it.</Empty>
    </Workspace>
  );
}
