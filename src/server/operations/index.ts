/** What each operation of the contract does. */
import { accessHandlers } from './access';
import { boardHandlers } from './board';
import { calendarHandlers } from './calendars';
import { callHandlers } from './calls';
import type { Handlers } from './handler';
import { holidayHandlers } from './holidays';
import { mailHandlers } from './mail';
import { messageHandlers } from './messages';
import { recordingHandlers } from './recordings';
import { numberHandlers } from './numbers';
import { ownHandlers } from './own';
import { peopleHandlers } from './people';
import { planHandlers } from './plan';
import { recordHandlers } from './records';
import { rehearsalHandlers } from './rehearsals';
import { bookHandlers } from './book';
import { proofHandlers } from './proof';
import { scriptHandlers } from './scripts';
import { soundHandlers } from './sounds';
import { stateHandlers } from './state';
import { workHandlers } from './work';

export const handlers: Handlers = {
  ...planHandlers,
  ...callHandlers,
  ...peopleHandlers,
  ...numberHandlers,
  ...accessHandlers,
  ...stateHandlers,
  ...holidayHandlers,
  ...calendarHandlers,
  ...bookHandlers,
  ...proofHandlers,
  ...scriptHandlers,
  ...rehearsalHandlers,
  ...recordHandlers,
  ...soundHandlers,
  ...messageHandlers,
  ...recordingHandlers,
  ...boardHandlers,
  ...ownHandlers,
  ...mailHandlers,
  ...workHandlers,
};
