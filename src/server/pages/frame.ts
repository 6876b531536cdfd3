import { KINDS, OBJECT_KINDS } from '@/core/plan';
import { rightsOf } from '../access/rights';
import { unreadOf } from '../draft';
import { askForPage, pageActor } from './reader';

/** Names, looks and pages of all kinds, for the screens: the same for everybody. */
export const FACES = Object.fromEntries([
  ...OBJECT_KINDS.map((k) => [
    k,
    { word: KINDS[k].word, words: KINDS[k].words, look: KINDS[k].look, path: KINDS[k].path },
  ]),
  ['organisation', { word: 'organisation', words: 'organisations', look: 'rule', path: '/settings' }],
]) as Record<string, Pick<(typeof KINDS)['site'], 'word' | 'words' | 'look' | 'path'>>;

/** What the frame around every page shows. */
export async function frameData() {
  const actor = await pageActor();
  const [{ by, counts, edits, revision, ...rest }, told] = await Promise.all([
    askForPage('frame', { reader: actor }),
    unreadOf(actor),
  ]);
  const people = by
    .map(({ name, count }) => ({ name: name === actor.name ? 'you' : name, count }))
    .sort((a) => (a.name === 'you' ? -1 : 1));
  return {
    ...rest,
    revision,
    actor: { name: actor.name, role: actor.role.name, rights: rightsOf(actor.role), account: actor.account },
    counts: { ...counts, edits, revision },
    ribbon: { edits, by: people },
    told,
    faces: FACES,
  };
}
