import type { InputError } from '../plan';
import type { Exchange } from './exchange';
import { digitsToDial, type Situation } from './situation';

/* An id that the plan doesn't have is an error with its path (ENGINE E13). */

type Known = (exchange: Exchange, id: string) => boolean;

const extension: Known = (x, id) => x.extensions.has(id);
const extensionOrPerson: Known = (x, id) => x.extensions.has(id) || x.people.has(id);
const destination: Known = (x, id) => x.destinations.has(id);
const noticed: Known = (x, id) =>
  x.numbers.has(id) ||
  x.plan.inboundRoutes.some((r) => r.id === id) ||
  ['attendant', 'queue'].includes(x.destinations.get(id)?.kind ?? '');
const ofKind =
  (kind: string): Known =>
  (x, id) =>
    x.destinations.get(id)?.kind === kind;

/** Everything in a situation that points at nothing in the plan; at most one for each entry. */
export function situationErrors(exchange: Exchange, situation: Situation): InputError[] {
  const out: InputError[] = [];
  const look = (path: string, id: string | null | undefined, what: string, isKnown: Known) => {
    if (id === null || id === undefined || isKnown(exchange, id)) return;
    out.push({
      code: 'no-such-object',
      path,
      sentence: `${path} is ${JSON.stringify(id.slice(0, 40))}; the plan has no ${what} with that id.`,
    });
  };
  for (const list of ['busy', 'away', 'off', 'doNotDisturb'] as const)
    situation[list]?.forEach((id, i) => look(`${list}.${i}`, id, 'extension or person', extensionOrPerson));
  for (const id of Object.keys(situation.presence ?? {}))
    look(`presence.${id}`, id, 'extension or person', extensionOrPerson);
  situation.forwarding?.forEach((f, i) => look(`forwarding.${i}.extension`, f.extension, 'extension', extension));
  situation.answers?.forEach((a, i) => look(`answers.${i}.id`, a.id, 'destination', destination));
  situation.trunks?.forEach((t, i) => look(`trunks.${i}.id`, t.id, 'trunk', (x, id) => x.trunks.has(id)));
  situation.links?.forEach((l, i) => look(`links.${i}.id`, l.id, 'site', (x, id) => x.sites.has(id)));
  situation.agents?.forEach((id, i) => look(`agents.${i}`, id, 'extension', extension));
  situation.queues?.forEach((q, i) => look(`queues.${i}.id`, q.id, 'queue', ofKind('queue')));
  situation.hotDesks?.forEach((h, i) => look(`hotDesks.${i}.extension`, h.extension, 'extension', extension));
  situation.greetings?.forEach((g, i) => look(`greetings.${i}.mailbox`, g.mailbox, 'mailbox', ofKind('mailbox')));
  situation.switches?.forEach((s, i) => look(`switches.${i}.id`, s.id, 'time switch', ofKind('timeSwitch')));
  situation.notices?.forEach((n, i) => {
    look(`notices.${i}.hours`, n.hours, 'hours', (x, id) => x.hours.has(id));
    look(`notices.${i}.of`, n.of, 'number, inbound route, attendant or queue', noticed);
    look(`notices.${i}.leadsTo`, n.leadsTo, 'destination', destination);
    look(`notices.${i}.prompt`, n.prompt, 'prompt', (x, id) => x.prompts.has(id));
  });
  situation.blocked?.forEach((b, i) => {
    look(`blocked.${i}.site`, b.site, 'site', (x, id) => x.sites.has(id));
    look(`blocked.${i}.leadsTo`, b.leadsTo, 'destination', destination);
  });
  situation.emergencyCalls?.forEach((c, i) =>
    look(`emergencyCalls.${i}.extension`, c.extension, 'extension', extension),
  );
  situation.lines?.forEach((l, i) => look(`lines.${i}.extension`, l.extension, 'extension', extension));
  situation.transfers?.forEach((t, i) => {
    look(`transfers.${i}.by`, t.by, 'extension', extension);
    if (!digitsToDial.safeParse(t.to).success) look(`transfers.${i}.to`, t.to, 'destination', destination);
  });
  return out;
}
