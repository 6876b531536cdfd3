import type { Extension, PresenceChoice, PresenceRule } from '../plan';
import { BUSY } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';
import { mailboxOf } from './mailbox';
import { leadOr, type Callers, type CourseWayOn, type Moment, type WayOn } from './offer';

/** The state that an extension's person is in, where the organisation uses it; null without one. */
export function presenceState(
  extension: Extension,
  exchange: Pick<Exchange, 'plan'>,
  { presence }: Pick<Situation, 'presence'>,
): PresenceRule | null {
  const state = presence?.[extension.id] ?? (extension.person ? presence?.[extension.person] : undefined);
  if (state === undefined) return null;
  return exchange.plan.presenceRules.find((r) => r.activity === state || r.id === state) ?? null;
}

/** The state that an extension's person is in and what it does to calls from where this one comes; null without one. */
export function presenceAct(
  extension: Extension,
  moment: Pick<Moment, 'exchange' | 'situation' | 'outside'>,
): { rule: PresenceRule; act: PresenceRule['internal']; to: string | null } | null {
  const rule = presenceState(extension, moment.exchange, moment.situation);
  if (!rule) return null;
  const chosen = choiceOf(extension, rule, moment.exchange);
  return {
    rule,
    act: moment.outside ? chosen.outside : chosen.internal,
    to: moment.outside ? chosen.outsideTo : chosen.internalTo,
  };
}

/**
 * What the presence of an extension's person does to this call (RFC 4480, ENGINE E11): null when the state has no rule, or
 * its rule lets the phone ring.
 */
export function presenceOf(extension: Extension, moment: Moment): WayOn | null {
  const found = presenceAct(extension, moment);
  if (!found) return null;
  const { rule, act, to } = found;
  const whose = moment.outside ? 'outside' : 'internal';
  const way = (what: string, onward: WayOn['to']): WayOn => ({
    when: rule.name,
    afterSeconds: 0,
    to: onward,
    code: 'presence',
    sentence: `${extension.name} is “${rule.name}”: ${whose} calls ${what}.`,
  });
  const busy = { type: 'end', outcome: 'failed', cause: BUSY } as const;
  const box = mailboxOf(extension, moment.exchange);
  switch (act) {
    case 'ring':
      return null;
    case 'busy':
      return way('hear busy', busy);
    case 'mailbox':
      return box
        ? way('go to the mailbox', { type: 'destination', id: box })
        : way('would go to the mailbox, but there is none', busy);
    case 'forward':
      return way('go elsewhere', { type: 'destination', id: to! });
  }
}

/** Where presence can send calls of an extension: of the states that the organisation uses, those that do not let it ring. */
export function presenceWays(extension: Extension, exchange: Exchange, callers: Callers): CourseWayOn[] {
  return exchange.plan.presenceRules.flatMap((state) => {
    const rule = choiceOf(extension, state, exchange);
    const internal = { act: rule.internal, to: rule.internalTo };
    const outside = { act: rule.outside, to: rule.outsideTo };
    return (callers === 'outside' ? [outside] : [internal, outside]).flatMap(({ act, to }): CourseWayOn[] => {
      if (act === 'ring') return [];
      const id = act === 'forward' ? to : act === 'mailbox' ? mailboxOf(extension, exchange) : null;
      return [{ when: state.name, drive: 'none', to: leadOr(id, BUSY) }];
    });
  });
}

/** The extension's own rule of a state before the organisation's. */
function choiceOf(
  extension: Extension,
  rule: PresenceRule,
  exchange: Pick<Exchange, 'presenceChoices'>,
): PresenceRule | PresenceChoice {
  return exchange.presenceChoices.get(extension.id)?.find((c) => c.rule === rule.id) ?? rule;
}
