import type { Span } from '../cells';
import { differences, planWith, type Changed, type Plan } from '../plan';
import { compile, type Exchange } from '../routing';
import type { ImpactGroup } from './grouped';
import { impactOf } from './impact-groups';

/**
 * Asks for what changes when a phone, a trunk or a class is edited, before anybody does: a step for each, to be taken when there is
 * nothing else to do, that says what was found. What is read and cut of a plan for it stays for whoever asks next.
 */
export function* askAhead(exchange: Exchange, span: Span): Generator<{ willBe: Exchange; groups: ImpactGroup[] }> {
  const { plan } = exchange;
  for (const edit of editsOf(plan)) {
    const edited = planWith(plan, [edit]);
    const willBe = compile(edited, exchange);
    yield { willBe, groups: impactOf({ was: exchange, willBe, situation: {}, span }, differences(plan, edited)) };
  }
}

/** An edit of each of the kinds that are edited most and that most calls meet; none of what the plan has nothing of. */
export function editsOf(plan: Plan): Changed[] {
  const phone = plan.extensions.find((e) => e.kind !== 'virtual');
  const trunk = plan.trunks.find((t) => t.enabled);
  const [cos] = plan.classes;
  const out: Changed[] = [];
  if (phone) out.push({ kind: 'extension', id: phone.id, value: { ...phone, ringSeconds: phone.ringSeconds + 1 } });
  if (trunk) out.push({ kind: 'trunk', id: trunk.id, value: { ...trunk, enabled: false } });
  if (cos) {
    const mobile = { ...cos.rights.mobile, allow: !cos.rights.mobile.allow };
    out.push({ kind: 'class', id: cos.id, value: { ...cos, rights: { ...cos.rights, mobile } } });
  }
  return out;
}
