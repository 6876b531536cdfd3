import { KINDS, fieldsOf, labelOf, referrersOf, type AnyObject, type ObjectKind, type Prompt } from '@/core/plan';
import { PHRASES, PHRASE_LANGUAGES, PHRASE_TEXTS } from '@/core/plan';
import { spokenKeys } from '@/core/analysis';
import { heardPhrase } from '@/core/exchange/hear';
import { languageName } from '@/core/plan/facts/value-words';
import { replacedEverywhere } from '@/core/acts/replace';
import { demandFor, whereIs } from '../../access/areas';
import { Refused, may } from '../../access/rights';
import { asEdits } from '../ground/as-edits';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { shortLedger } from './short-ledger';

/* Prompts: the list of them, one with where it is heard, and the phrases of the exchange. */

const clock = (seconds: number) =>
  seconds === 0 ? '' : `${Math.floor(seconds / 60)}:${String(Math.round(seconds) % 60).padStart(2, '0')}`;

/** All prompts, each with its languages, its length and how often it is used. */
export function prompts(given: Given, { reader }: By) {
  const { plan } = given.draft;
  const used = new Map<string, number>();
  for (const p of plan.prompts) used.set(p.id, 0);
  for (const [id, list] of referrersOf(plan, new Set(used.keys()))) used.set(id, list.length);
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'prompt',
      (o) => ({
        name: o.name,
        language: [o, ...o.versions].map((v) => languageName(v.language)).join(', '),
        length: clock(o.seconds),
        sound: soundInWords(o),
        used: o.phrase
          ? `says “${o.phrase}”`
          : used.get(o.id) === 0
            ? 'nowhere'
            : `${used.get(o.id)} ${used.get(o.id) === 1 ? 'place' : 'places'}`,
        text: o.text,
      }),
      ['name', 'language', 'text'],
      { language: plan.organisation.language },
    ),
  );
}

function soundInWords(o: Prompt): string {
  const all = [o, ...o.versions];
  const silent = all.filter((v) => v.sound === null);
  if (silent.length === 0) return 'recorded';
  return silent.length === all.length
    ? 'text only'
    : `${silent.map((v) => languageName(v.language)).join(', ')} text only`;
}

interface User {
  kind: ObjectKind;
  id: string;
  label: string;
  object: AnyObject;
}

/** What refers to each of some objects. */
function usersOf(plan: Given['draft']['plan'], ids: ReadonlySet<string>): Map<string, User[]> {
  const out = new Map<string, User[]>();
  for (const [id, list] of referrersOf(plan, ids))
    out.set(
      id,
      list.map(({ kind, object }: { kind: ObjectKind; object: AnyObject }) => ({
        kind,
        id: object.id,
        object,
        label: `${KINDS[kind].word} ${labelOf(kind, object)}`,
      })),
    );
  return out;
}

/** One prompt, with where it is heard and the keys that its text names. */
export function promptPage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'prompt', id, reader });
  if (!data) return null;
  const sight = sightIn(given.draft, reader);
  const { text } = data.object as unknown as Prompt;
  const users = usersOf(given.draft.plan, new Set([id])).get(id) ?? [];
  return sight.cut({
    data,
    users: users.filter((u) => sight.sees(u.kind, u.object)).map(({ object: _object, ...u }) => u),
    others: sight.list('prompt').flatMap((p) => (p.id === id ? [] : [{ id: p.id, label: p.name }])),
    spoken: spokenKeys(text),
  });
}

/** The edits by which another prompt is heard wherever one is. */
export function promptReplaced({ draft }: Given, { id, by, reader }: By & { id: string; by: string }) {
  const [old, next] = [id, by].map((p) => draft.plan.prompts.find((x) => x.id === p));
  if (!old) throw new Refused(404, 'no-such-object', 'There is no such prompt.');
  if (!next) throw new Refused(404, 'no-such-object', 'There is no such prompt to be heard instead.', 'by');
  demandFor(reader, 'edit', draft.plan, 'prompt', old);
  const changes = replacedEverywhere(draft.plan, id, by);
  if (id === by || changes.length === 0)
    throw new Refused(409, 'nothing-to-do', `${old.name} is heard nowhere: there is nothing to replace.`);
  return { edits: asEdits(draft, changes), act: `replaced ${old.name} by ${next.name} everywhere` };
}

/** What the exchange says for a phrase in a language, in one's own words where there are some; refused for what is no phrase. */
export function phraseSaid(
  given: Given,
  { phrase, language, figure }: By & { phrase: string; language: string; figure: string | null },
) {
  const known = PHRASES.find((p) => p === phrase);
  if (!known)
    throw new Refused(404, 'no-such-phrase', `The exchange says nothing called “${phrase.slice(0, 40)}”.`, 'phrase');
  const heard = heardPhrase(given.draft.exchange(), known, language, figure ?? '');
  if (figure === null && heard.figure !== null)
    throw new Refused(422, 'no-figure', 'This phrase says a figure; name it.', 'figure');
  return { phrase: known, language: heard.language, text: heard.text, sound: heard.sound };
}

/** Where callers wait, with the music that they hear there: sites, then queues. */
export function music({ draft }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const [sites, queues] = [sight.list('site'), sight.list('queue')];
  const place = (kind: 'site' | 'queue', o: (typeof sites)[number] | (typeof queues)[number], site: string | null) => ({
    kind,
    object: { id: o.id, music: o.music },
    rowVersion: draft.rowVersions.of(kind, o.id)!,
    label: labelOf(kind, o),
    site,
    canEdit: may(reader, 'edit', whereIs(draft.plan, kind, o)),
  });
  return sight.cut({
    places: [...sites.map((s) => place('site', s, null)), ...queues.map((q) => place('queue', q, q.site))],
    prompts: sight.list('prompt').map((p) => ({ id: p.id, label: p.name })),
    field: fieldsOf('site').find((f) => f.field === 'music')!,
  });
}

/** Every phrase of the exchange in each language, and the prompt that takes its place where there is one. */
export function phrases(given: Given, { reader }: By) {
  const own = new Map(
    sightIn(given.draft, reader)
      .list('prompt')
      .flatMap((p) => (p.phrase ? [[p.phrase, { id: p.id, name: p.name }] as const] : [])),
  );
  return PHRASES.map((phrase) => ({
    phrase,
    texts: PHRASE_LANGUAGES.map((language) => ({ language, text: PHRASE_TEXTS[language][phrase] })),
    own: own.get(phrase) ?? null,
  }));
}
