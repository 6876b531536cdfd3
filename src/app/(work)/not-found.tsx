import { Empty, ActLink } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';

export default function NotThere() {
  return (
    <Workspace title="Not there">
      <Empty act={<ActLink href="/">To Today</ActLink>}>
        The draft has nothing under this address. It may have been deleted; a revision may still have it.
      </Empty>
    </Workspace>
  );
}
