/** Everything that is answered from the held plans, by name. */
import type { Question } from '../question';
import * as calls from './calls';
import * as edits from './edits';
import { frame } from './frame';
import * as ledgers from './ledgers';
import * as numbers from './numbers';
import * as objects from './objects';
import * as people from './people';
import * as settings from './settings';
import * as today from './today';

const { prepareEdits, pending, comparison, undoOneEdits, bringBackEdits, packed, planDocument, historyNames, used } = edits;
const { comparison: peopleComparison, ...ofPeople } = people;
const { asEdits: _asEdits, ...peopleQuestions } = ofPeople;
const { findObjects: _findObjects, ...callQuestions } = calls;
void [_asEdits, _findObjects];

export const QUESTIONS = {
  frame,
  ...objects,
  ...ledgers,
  ...callQuestions,
  ...today,
  ...peopleQuestions,
  peopleComparison,
  ...numbers,
  ...settings,
  prepareEdits,
  pending,
  comparison,
  undoOneEdits,
  bringBackEdits,
  packed,
  planDocument,
  historyNames,
  used,
};

export type QuestionName = keyof typeof QUESTIONS;
export type InputOf<N extends QuestionName> = (typeof QUESTIONS)[N] extends Question<infer I, unknown> ? I : never;
export type AnswerOf<N extends QuestionName> = Awaited<ReturnType<(typeof QUESTIONS)[N]>>;
