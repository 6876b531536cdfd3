import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { versions } from '@/server/draft';

export const dynamic = 'force-dynamic';

export const GET = door(operations.health, async () => {
  const { draft, live } = await versions();
  return { ok: true, draftVersion: draft, revision: live };
});
