import { KINDS, changedFields, fieldsOf, isKind, labelOf, type AnyObject, type DraftKind } from '../../plan';

/** One object that an act changed: as it was and as it is, null where it is not. */
export interface ActChange {
  kind: DraftKind;
  before: object | null;
  after: object | null;
}

/** An act may be called by so many characters. */
export const MOST_ACT_NAME = 300;

/**
 * What an act is called, from what it did: “added extension 2151 Ann Example”, “changed “E-mail” of Nadia Hollis”, “moved National
 * calls in its list”, “changed Class of 40 extensions”. The first change is the one that the act is about.
 */
export function actName(changes: readonly ActChange[]): string {
  const first = changes[0];
  if (!first) return 'changed nothing';
  const verb = verbOf(first);
  const alike = changes.every((c) => c.kind === first.kind && verbOf(c) === verb);
  if (changes.length > 1 && alike) return cut(`${verb} ${changes.length} ${wordsOf(first.kind)}`);
  const one = `${verb} ${named(first, verb)}`;
  if (changes.length === 1) return cut(verb === MOVED ? `${one} in its list` : one);
  // What is renumbered because something else moved is no act of its own.
  const others = changes.filter((c) => verbOf(c) !== MOVED).length - (verb === MOVED ? 0 : 1);
  return cut(others <= 0 ? `${one}${verb === MOVED ? ' in its list' : ''}` : `${one} and ${others} more`);
}

const MOVED = 'moved';

function verbOf({ kind, before, after }: ActChange): string {
  if (!before) return 'added';
  if (!after) return 'deleted';
  const fields = changedFields(before, after);
  if (fields.length === 1 && fields[0] === 'position') return MOVED;
  const titles = new Map(isKind(kind) ? fieldsOf(kind).map((f) => [f.field, f.title]) : []);
  const told = fields.map((f) => `“${titles.get(f) ?? f}”`);
  return told.length <= 2 ? `changed ${told.join(' and ')} of` : `changed ${told.length} fields of`;
}

const wordsOf = (kind: DraftKind) => (isKind(kind) ? KINDS[kind].words : 'organisations');

/** The object by its name, with its kind where the name alone does not tell. */
function named({ kind, before, after }: ActChange, verb: string): string {
  if (!isKind(kind)) return 'the organisation';
  const label = labelOf(kind, (after ?? before) as AnyObject);
  return verb === 'added' || verb === 'deleted' ? `${KINDS[kind].word} ${label}` : label;
}

/** A name of what was typed may be long: it is cut, never refused. */
const cut = (text: string) => (text.length <= MOST_ACT_NAME ? text : `${text.slice(0, MOST_ACT_NAME - 1)}…`);
