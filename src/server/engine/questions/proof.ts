import type { Answer } from '@/contract';
import { readWhen } from '@/core/ask';
import { OBJECT_KINDS, labelOf, type AnyObject } from '@/core/plan';
import { atlasOf } from '@/core/proof';
import type { Situation } from '@/core/routing';
import { demandFor } from '../../access/areas';
import { Refused } from '../../access/rights';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';
import { heldOf } from './held-of';

/* What can be said of all calls there can be: asked in the draft, in live, or in a revision. */

interface AtPhone extends By {
  phone: string;
  at: string;
  of: string;
  now: number;
}

/** The phone asked about, and the moment on the clock of its site; 404 and 422 with what would be right. */
function phoneIn(held: HeldPlan, { phone: digits, at, now, reader }: AtPhone) {
  const phone = sightIn(held, reader)
    .list('extension')
    .find((e) => e.digits === digits);
  if (!phone) throw new Refused(404, 'no-such-object', `There is no extension ${digits}.`, 'phone');
  demandFor(reader, 'ask', held.plan, 'extension', phone);
  if (phone.kind === 'virtual')
    throw new Refused(422, 'no-phone', `${digits} ${phone.name} is virtual: it has no phone to dial at.`, 'phone');
  const site = held.exchange().sites.get(phone.site)!;
  const read = readWhen(at, site.zone, now);
  if (!read.ok) throw new Refused(422, 'bad-time', read.sentence, 'at');
  return { phone, site, at: read.at };
}

/** The moment that an atlas is asked for, in milliseconds since 1970 UTC. */
export async function momentAt(given: Given, input: AtPhone): Promise<number> {
  return phoneIn(await heldOf(given, input.of), input).at;
}

/** Everything that a phone can dial, cut into regions. */
export async function atlas(
  given: Given,
  input: AtPhone & { together?: boolean | undefined; under?: string | undefined; situation: Situation },
): Promise<Answer<'atlas'>> {
  const held = await heldOf(given, input.of);
  const { phone, site, at } = phoneIn(held, input);
  const { regions, under } = atlasOf(held.exchange(), phone.id, at, input.situation, input.together);
  return sightIn(held, input.reader).cut({
    regions,
    next: under(input.under ?? ''),
    phone: { id: phone.id, digits: phone.digits, name: phone.name, site: site.name },
    at: new Date(at).toISOString(),
    zone: site.zone,
  });
}

/** The digits of the first extension with a phone that a reader sees; null: there is none. */
export function firstPhone({ draft }: Given, { reader }: By): string | null {
  const phone = sightIn(draft, reader)
    .list('extension')
    .find((e) => e.kind !== 'virtual');
  return phone?.digits ?? null;
}

/** What things of the draft are called, as far as a reader may see them; what is not there is left out. */
export function labelsIn(
  { draft, index }: Given,
  { reader, ids }: By & { ids: readonly string[] },
): Record<string, string> {
  const sight = sightIn(draft, reader);
  const wanted = new Set(ids);
  return Object.fromEntries(
    OBJECT_KINDS.flatMap((kind) =>
      wanted.size === 0
        ? []
        : [...wanted].flatMap((id) => {
            const object = index().object(kind, id) as AnyObject | null;
            return object && sight.sees(kind, object) ? [[id, labelOf(kind, object)]] : [];
          }),
    ),
  );
}
