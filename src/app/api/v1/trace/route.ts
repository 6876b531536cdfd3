import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { answerIn, planOf } from '@/server/exchange/answer';

export const GET = door(operations.traceGet, async ({ actor, query: q }) => {
  const { trace, at } = await answerIn(actor, await planOf(q.of), {
    from: q.from,
    dial: q.dial,
    when: q.at,
    calling: q.calling,
  });
  return { ...trace, at };
});

export const POST = door(operations.tracePost, async ({ actor, body: b }) => {
  const { trace, at } = await answerIn(
    actor,
    await planOf(b.of),
    { from: b.from, dial: b.dial, when: b.at, calling: b.calling, enBloc: b.enBloc, withhold: b.withhold },
    b.situation,
  );
  return { ...trace, at };
});
