import type { Answer } from '@/contract';
import type { WholeEdit } from '@/contract/plan';
import { differences, readDocumentText, readPlan, sharing, type Plan } from '@/core/plan';
import { callWords, AHEAD_MS, impactOf, type ToldEnd } from '@/core/proof';
import { compile } from '@/core/routing';
import { EditRefused } from '../../access/rights';
import { labelsIn } from '../ground/labels';
import { described } from '../ground/pending';
import type { By, Given } from '../ground/question';
import { hourOf, type Moment } from '../ground/verdicts';
import { withSecretsOf } from './edits';

/* A plan document that comes as a text: what it would make of the draft. */

/** Objects that differ up to which every call is asked. */
const MOST_ASKED = 200;
const LISTED = 60;
const MOST_GROUPS = 40;

function readText(text: string): Plan {
  const document = readDocumentText(text);
  if (!document.ok)
    throw new EditRefused(422, document.code, [{ code: document.code, path: '', sentence: document.sentence }]);
  const read = readPlan(document.document);
  if (!read.ok) throw new EditRefused(422, 'invalid', read.errors.slice(0, 50));
  return read.plan;
}

/** What a text would make of the draft: the edits, and what of them is told before they are made. */
export function planImport(
  { draft }: Given,
  { text, ...moment }: By & Moment & { text: string },
): { told: Omit<Answer<'importPlan'>, 'applied'>; edits: WholeEdit[] } {
  const plan = sharing(withSecretsOf(readText(text), draft.plan, true), draft.plan);
  const found = differences(draft.plan, plan);
  const from = hourOf(moment.now);
  const groups =
    found.length > MOST_ASKED
      ? null
      : impactOf(
          {
            was: draft.exchange(),
            willBe: compile(plan, draft.exchange()),
            situation: moment.situation,
            span: { from, to: from + AHEAD_MS },
          },
          found,
        );
  const edits = found.slice(0, LISTED).map(described);
  return {
    told: {
      draftVersion: draft.version,
      count: found.length,
      edits,
      labels: labelsIn(
        [draft.plan, plan],
        edits.map((e) => e.fields),
      ),
      groups:
        groups &&
        groups.slice(0, MOST_GROUPS).map(({ phones, numbers, brought, example, was, willBe }) => ({
          phones,
          numbers,
          brought,
          call: callWords(example.call),
          was: endWords(was),
          willBe: endWords(willBe),
        })),
    },
    edits: found.map((d) => ({
      kind: d.kind,
      id: d.id,
      rowVersion: draft.rowVersions.of(d.kind, d.id),
      value: d.after as unknown as WholeEdit['value'],
    })),
  };
}

const endWords = (end: ToldEnd | null): string =>
  end === null ? 'no such phone or number' : end.outcome === 'routed' ? (end.lands?.label ?? 'released') : end.outcome;
