/** The API as values: every operation with what it takes and answers. Handlers, the browser's calls, tests and OpenAPI come from it. */
import { accessFacts } from './access';
import { boardFacts } from './board';
import { callFacts } from './calls';
import { calendarFacts } from './calendars';
import { holidayFacts } from './holidays';
import { mailFacts } from './mail';
import { messageFacts } from './messages';
import { recordingFacts } from './recordings';
import { numberFacts } from './numbers';
import type { AnswerIn, BodyOf, Facts, GivenBody, GivenQuery, ParamsOf, QueryOf } from './operation';
import { ownFacts } from './own';
import type { OperationName } from './paths';
import { peopleFacts } from './people';
import { goingFacts } from './going-live';
import { planFacts } from './plan';
import { problemFacts } from './problems';
import { recordFacts } from './records';
import { rehearsalFacts } from './rehearsals';
import { bookFacts } from './book';
import { proofFacts } from './proof';
import { scriptFacts } from './scripts';
import { soundFacts } from './sounds';
import { stateFacts } from './state';
import { workFacts } from './work';

export const contract = {
  ...planFacts,
  ...problemFacts,
  ...goingFacts,
  ...callFacts,
  ...peopleFacts,
  ...numberFacts,
  ...accessFacts,
  ...stateFacts,
  ...holidayFacts,
  ...calendarFacts,
  ...bookFacts,
  ...proofFacts,
  ...scriptFacts,
  ...rehearsalFacts,
  ...recordFacts,
  ...soundFacts,
  ...messageFacts,
  ...recordingFacts,
  ...boardFacts,
  ...ownFacts,
  ...mailFacts,
  ...workFacts,
} satisfies Record<OperationName, Facts>;

type Contract = typeof contract;

/** What an operation answers. */
export type Answer<N extends OperationName> = AnswerIn<Contract[N]>;
/** Query and body of an operation once they are parsed. */
export type Query<N extends OperationName> = QueryOf<Contract[N]>;
export type Body<N extends OperationName> = BodyOf<Contract[N]>;

type Needed<K extends string, T> = [T] extends [undefined] ? { [P in K]?: undefined } : { [P in K]: T };
/** What is given to call an operation: parts of its path, query and body, as far as it has them. */
export type Input<N extends OperationName> = Needed<'body', GivenBody<Contract[N]>> &
  ([GivenQuery<Contract[N]>] extends [undefined] ? { query?: undefined } : { query?: GivenQuery<Contract[N]> }) &
  (keyof ParamsOf<N> extends never ? { params?: undefined } : { params: ParamsOf<N> });

export { PATHS, type OperationName } from './paths';
export type { Facts, ParamsOf } from './operation';
