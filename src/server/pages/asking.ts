import { notFound } from 'next/navigation';
import type { z } from 'zod';
import { holdingBesides, situationSchema } from '@/core/exchange';
import { may } from '../access/rights';
import { momentOf } from '../operations/calls';
import { situationAt } from '../state/situation';
import { askForPage, pageActor } from './reader';

/* Pages that ask what becomes of calls. */

/** What a trace is asked with besides what holds: whoever is busy or away, trunks that are down, keys that are pressed. */
const withSchema = situationSchema.pick({
  busy: true,
  away: true,
  off: true,
  doNotDisturb: true,
  presence: true,
  trunks: true,
  keys: true,
});

/** The same out of an address; what makes no sense there is left out. */
function withOf(text: string | undefined): z.output<typeof withSchema> {
  try {
    const read = withSchema.safeParse(JSON.parse(text ?? '{}'));
    return read.success ? read.data : {};
  } catch {
    return {};
  }
}

/** Which plan an address names; the draft where it names none. */
const planOf = (of: string | undefined): string => (/^(draft|live|[0-9]{1,9})$/.test(of ?? '') ? of! : 'draft');

/** What the address of a trace may say. */
export interface TraceAddress {
  from?: string;
  /** who calls by a trunk */
  calling?: string;
  dial?: string;
  at?: string;
  every?: string;
  with?: string;
  of?: string;
  beside?: string;
}

export async function tracePage(asked: TraceAddress) {
  const reader = await pageActor();
  if (!may(reader, 'ask')) notFound();
  const calling = asked.calling ? { calling: asked.calling } : {};
  const question = { from: asked.from ?? '', dial: asked.dial ?? '', at: asked.at ?? 'now', ...calling };
  const extra = withOf(asked.with);
  const states = Object.entries(extra.presence ?? {}).flat();
  const ids = [extra.busy, extra.away, extra.off, extra.doNotDisturb, extra.trunks?.map((t) => t.id), states];
  const names = await askForPage('labelsIn', { reader, ids: ids.flatMap((list) => list ?? []) });
  const beside = { holds: extra, names };
  const of = planOf(asked.of);
  const held = { of, beside: asked.beside === undefined ? null : planOf(asked.beside) };
  const mayEdit = may(reader, 'edit') && Object.keys(extra).length === 0 && of === 'draft';
  const known = { question, beside, plans: held, mayEdit };
  if (question.from === '' && question.dial === '') return { ...known, answer: null, refused: null };
  const now = Date.now();
  const asks = { from: question.from, dial: question.dial, when: question.at, ...calling };
  const situation = holdingBesides(await situationAt(await momentOf(asks, now)), extra);
  const plans = { of, beside: held.beside ?? (of === 'draft' ? 'live' : 'draft') };
  const call = { reader, question: asks, now, situation, everyRule: asked.every === 'rule' };
  return { ...known, ...(await askForPage('traceBoth', { ...call, ...plans })) };
}

/** Of which site or number a call-flow book is; null where the address names neither. */
export async function bookPage(asked: { site?: string; number?: string; of?: string }) {
  await pageActor();
  const named = (id: string | undefined) => (/^[a-z0-9][a-z0-9-]{0,35}$/.test(id ?? '') ? id! : '');
  const [site, number] = [named(asked.site), named(asked.number)];
  return (site === '') === (number === '') ? null : { site, number, of: planOf(asked.of) };
}

export async function reachPage(asked: { to?: string; of?: string }) {
  const reader = await pageActor();
  if (!may(reader, 'ask')) notFound();
  const to = /^[a-z0-9][a-z0-9-]{0,35}$/.test(asked.to ?? '') ? asked.to! : '';
  return { to, of: planOf(asked.of) };
}

/** What the address of an atlas may say. */
export interface AtlasAddress {
  phone?: string;
  at?: string;
  under?: string;
  of?: string;
  withPhone?: string;
  withAt?: string;
  withOf?: string;
}

/** The phone that the atlas is opened for: the one that is asked for, else the reader's first. */
export async function atlasPage(asked: AtlasAddress) {
  const reader = await pageActor();
  if (!may(reader, 'ask')) notFound();
  const phone = asked.phone ?? (await askForPage('firstPhone', { reader }));
  const under = /^[0-9*#]{0,31}$/.test(asked.under ?? '') ? (asked.under ?? '') : '';
  const { withPhone = null, withAt = null } = asked;
  const withOf = asked.withOf === undefined ? null : planOf(asked.withOf);
  const against = { withPhone, withAt, withOf };
  const mayEdit = may(reader, 'edit');
  return { phone: phone ?? '', at: asked.at ?? 'now', under, of: planOf(asked.of), ...against, mayEdit };
}
