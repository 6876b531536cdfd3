import type { Answer } from '@/contract';
import { readWhen } from '@/core/ask';
import { OBJECT_KINDS, labelOf, type AnyObject } from '@/core/plan';
import { weekAround, type SituationPiece } from '@/core/analysis';
import { atlasOf, atlasThrough, atlasesApart } from '@/core/proof';
import type { Situation } from '@/core/routing';
import { demandFor } from '../../access/areas';
import { Refused } from '../../access/rights';
import { goingOn } from '../ground/going-on';
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

interface ApartInput extends AtPhone {
  withPhone?: string | undefined;
  withAt?: string | undefined;
  withOf?: string | undefined;
}

/** What is asked against, where something of it is said. */
const against = ({ withPhone, withAt, withOf, ...one }: ApartInput): AtPhone => ({
  ...one,
  phone: withPhone ?? one.phone,
  at: withAt ?? one.at,
  of: withOf ?? one.of,
});

/** The moments of both atlases that are laid over one another, in milliseconds since 1970 UTC. */
export async function momentsApart(given: Given, input: ApartInput): Promise<[number, number]> {
  return [await momentAt(given, input), await momentAt(given, against(input))];
}

/** Every string that goes otherwise at one phone than at another, at another moment, or in another plan. */
export async function atlasApart(
  given: Given,
  { situations, ...input }: ApartInput & { situations: readonly [Situation, Situation] },
): Promise<Answer<'atlasApart'>> {
  const asked = [input, against(input)] as const;
  const sides = [];
  for (const [i, one] of asked.entries()) {
    const held = await heldOf(given, one.of);
    const found = phoneIn(held, one);
    sides.push({ ...found, held, of: one.of, situation: situations[i]! });
  }
  const [a, b] = sides.map(({ held, phone, at, situation }) => ({
    exchange: held.exchange(),
    phone: phone.id,
    at,
    situation,
  }));
  const { apart, alike, differ } = atlasesApart(a!, b!, goingOn);
  return sightIn(sides[0]!.held, input.reader).cut({
    groups: apart,
    alike: String(alike),
    differ: String(differ),
    two: sides.map(({ phone, site, at, of }) => ({
      digits: phone.digits,
      name: phone.name,
      at: new Date(at).toISOString(),
      zone: site.zone,
      of,
    })),
  });
}

/** When through the week of a moment what a phone can dial is another than at that moment. */
export async function atlasHours(
  given: Given,
  { pieces, ...input }: AtPhone & { pieces: readonly SituationPiece[] },
): Promise<Answer<'atlasHours'>> {
  const held = await heldOf(given, input.of);
  const { phone, site, at } = phoneIn(held, input);
  const span = weekAround(site.zone, at);
  const exchange = held.exchange();
  const then = (moment: number) => pieces.findLast((p) => p.from <= moment)?.situation ?? pieces[0]!.situation;
  const standing = (moment: number) => ({ exchange, phone: phone.id, at: moment, situation: then(moment) });
  // What is there by now of the week, then of what is laid over what is there at the moment asked about.
  const cuts = atlasThrough({ exchange, phone: phone.id }, span, pieces, (share) => goingOn(share / 2));
  const isIn = ({ stretches }: (typeof cuts)[number]) => stretches.some((s) => s.from <= at && at < s.to);
  const differ = cuts.map((c, i) => {
    goingOn(0.5 + i / cuts.length / 2);
    return isIn(c) ? '0' : String(atlasesApart(standing(at), standing(c.at)).differ);
  });
  // What goes as at the moment asked about is one, whatever else is cut there.
  const same = differ.indexOf('0');
  const stretches: Answer<'atlasHours'>['stretches'] = [];
  const all = cuts.flatMap((c, i) => c.stretches.map((s) => ({ ...s, cut: differ[i] === '0' ? same : i })));
  for (const s of all.sort((x, y) => x.from - y.from)) {
    const last = stretches.at(-1);
    if (last?.cut === s.cut && last.to === s.from) last.to = s.to;
    else stretches.push({ ...s });
  }
  return { zone: site.zone, ...span, stretches, cuts: cuts.map((c, i) => ({ at: c.at, differ: differ[i]! })) };
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
