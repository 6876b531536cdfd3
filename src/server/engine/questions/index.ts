/** Everything that is answered from the held plans, by name. */
import type { Question } from '../ground/question';
import * as answering from './answering';
import * as attendants from './attendants';
import * as board from './board';
import { book } from './book';
import * as calendars from './calendars';
import * as callPages from './call-pages';
import * as calls from './calls';
import * as edits from './edits';
import { frame } from './frame';
import * as hours from './hours';
import { inbound, inboundRoutePage } from './inbound';
import * as ledgers from './ledgers';
import * as longLedgers from './long-ledgers';
import * as messages from './messages';
import * as numbers from './numbers';
import * as objects from './objects';
import * as joining from './joining';
import { outbound } from './outbound';
import * as own from './own';
import * as people from './people';
import * as peopleActs from './people-acts';
import * as places from './places';
import * as prompts from './prompts';
import * as promiseList from './promises';
import * as proof from './proof';
import { planImport } from './import-plan';
import { reach } from './reach';
import * as records from './records';
import * as rehearsals from './rehearsals';
import * as scripts from './scripts';
import * as settings from './settings';
import * as state from './state';
import * as switches from './switches';
import * as today from './today';
import * as weeks from './week';
import * as wholePlan from './whole-plan';

export const QUESTIONS = {
  book,
  frame,
  ...objects,
  ...ledgers,
  ...longLedgers,
  ...hours,
  inbound,
  inboundRoutePage,
  ...answering,
  ...attendants,
  ...prompts,
  ...promiseList,
  ...proof,
  ...wholePlan,
  outbound,
  planImport,
  reach,
  ...calendars,
  ...calls,
  ...today,
  ...people,
  ...peopleActs,
  ...joining,
  ...numbers,
  ...messages,
  ...board,
  ...callPages,
  ...own,
  ...settings,
  ...scripts,
  ...records,
  rehearsed: rehearsals.rehearsed,
  rehearsedNow: rehearsals.rehearsedNow,
  ...state,
  ...places,
  ...switches,
  ...weeks,
  ...edits,
};

export type QuestionName = keyof typeof QUESTIONS;
export type InputOf<N extends QuestionName> = (typeof QUESTIONS)[N] extends Question<infer I, unknown> ? I : never;
export type AnswerOf<N extends QuestionName> = Awaited<ReturnType<(typeof QUESTIONS)[N]>>;
