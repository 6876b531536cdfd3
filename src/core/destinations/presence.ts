import type { Extension, PresenceRule } from '../plan';
import { BUSY } from '../routing/cause';
import { leadOr, type CourseWayOn, type Moment, type WayOn } from './offer';

/**
 * What the presence of an extension's person does to this call (RFC 4480, ENGINE E11): null when the state has no rule, or
 * its rule lets the phone ring.
 */
export function presenceOf(extension: Extension, moment: Moment): WayOn | null {
  const { presence } = moment.situation;
  const state = presence?.[extension.id] ?? (extension.person ? presence?.[extension.person] : undefined);
  if (state === undefined) return null;
  const rule = moment.exchange.plan.presenceRules.find((r) => r.activity === state || r.id === state);
  if (!rule) return null;
  const act = moment.outside ? rule.outside : rule.internal;
  const to = moment.outside ? rule.outsideTo : rule.internalTo;
  const whose = moment.outside ? 'outside' : 'internal';
  const way = (what: string, onward: WayOn['to']): WayOn => ({
    when: rule.name,
    afterSeconds: 0,
    to: onward,
    code: 'presence',
    sentence: `${extension.name} is “${rule.name}”: ${whose} calls ${what}.`,
  });
  const busy = { type: 'end', outcome: 'failed', cause: BUSY } as const;
  switch (act) {
    case 'ring':
      return null;
    case 'busy':
      return way('hear busy', busy);
    case 'mailbox':
      return extension.mailbox
        ? way('go to the mailbox', { type: 'destination', id: extension.mailbox })
        : way('would go to the mailbox, but there is none', busy);
    case 'forward':
      return way('go elsewhere', { type: 'destination', id: to! });
  }
}

/** Where presence can send calls of an extension: of the states that the organisation uses, those that do not let it ring. */
export function presenceWays(extension: Extension, rules: readonly PresenceRule[]): CourseWayOn[] {
  return rules.flatMap((rule) =>
    [
      { act: rule.internal, to: rule.internalTo },
      { act: rule.outside, to: rule.outsideTo },
    ].flatMap(({ act, to }): CourseWayOn[] => {
      if (act === 'ring') return [];
      const id = act === 'forward' ? to : act === 'mailbox' ? extension.mailbox : null;
      return [{ when: rule.name, drive: 'none', to: leadOr(id, BUSY) }];
    }),
  );
}
