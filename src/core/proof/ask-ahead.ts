import type { Span } from '../cells';
import { differences, planWith } from '../plan';
import { compile, type Exchange } from '../routing';
import type { ImpactGroup } from './grouped';
import { impactOf } from './impact-groups';

/**
 * Asks for what changes when a phone is edited, before anybody does: what is read and cut of a plan for it stays for whoever asks
 * next. Answers what was found; nothing where there is no phone.
 */
export function askAhead(exchange: Exchange, span: Span): ImpactGroup[] {
  const { plan } = exchange;
  const phone = plan.extensions.find((e) => e.kind !== 'virtual');
  if (!phone) return [];
  const edited = planWith(plan, [
    { kind: 'extension', id: phone.id, value: { ...phone, ringSeconds: phone.ringSeconds + 1 } },
  ]);
  const willBe = compile(edited, exchange);
  return impactOf({ was: exchange, willBe, situation: {}, span }, differences(plan, edited));
}
