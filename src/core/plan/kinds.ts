/** The registry of kinds (ARCHITECTURE principle 2): a new kind adds a line here and a file of facts in `objects`. */
import { attendantKind, attendantKeyKind } from './objects/attendant';
import { classKind } from './objects/class';
import { extensionKind } from './objects/extension';
import { serviceCodeKind } from './objects/service-code';
import { holidaysKind, hoursKind } from './objects/hours';
import { inboundRouteKind } from './objects/inbound-route';
import { ladderKind, rungKind } from './objects/ladder';
import { mailboxKind } from './objects/mailbox';
import { numberKind } from './objects/number';
import { numberAdditionKind } from './objects/number-addition';
import { personKind } from './objects/person';
import { presenceChoiceKind } from './objects/presence-choice';
import { presenceRuleKind } from './objects/presence-rule';
import { promiseKind } from './objects/promise';
import { queueKind } from './objects/queue';
import { reachPlanKind, reachStepKind } from './objects/reach-plan';
import { ringGroupKind, pageGroupKind } from './objects/ring-group';
import { routeRuleKind } from './objects/route-rule';
import { shortNumberKind } from './objects/short-number';
import { outsideNumberKind, conferenceKind, faxKind, parkPlaceKind, toneKind } from './objects/simple-ends';
import { siteKind } from './objects/site';
import { sitePairKind } from './objects/site-pair';
import { promptKind, announcementKind, directoryKind } from './objects/spoken';
import { teamKind } from './objects/team';
import { timeSwitchKind } from './objects/time-switch';
import { trunkKind } from './objects/trunk';

/** In an order in which references that must be there point backwards. */
export const DEFINED = {
  class: classKind,
  ladder: ladderKind,
  holidays: holidaysKind,
  hours: hoursKind,
  prompt: promptKind,
  team: teamKind,
  site: siteKind,
  sitePair: sitePairKind,
  trunk: trunkKind,
  person: personKind,
  mailbox: mailboxKind,
  reachPlan: reachPlanKind,
  extension: extensionKind,
  ringGroup: ringGroupKind,
  pageGroup: pageGroupKind,
  queue: queueKind,
  attendant: attendantKind,
  timeSwitch: timeSwitchKind,
  announcement: announcementKind,
  directory: directoryKind,
  outsideNumber: outsideNumberKind,
  conference: conferenceKind,
  fax: faxKind,
  parkPlace: parkPlaceKind,
  tone: toneKind,
  attendantKey: attendantKeyKind,
  reachStep: reachStepKind,
  serviceCode: serviceCodeKind,
  presenceRule: presenceRuleKind,
  presenceChoice: presenceChoiceKind,
  number: numberKind,
  rung: rungKind,
  inboundRoute: inboundRouteKind,
  routeRule: routeRuleKind,
  numberAddition: numberAdditionKind,
  shortNumber: shortNumberKind,
  promise: promiseKind,
};
