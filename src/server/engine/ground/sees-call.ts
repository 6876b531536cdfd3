import type { AskedCall } from '@/core/proof';
import type { Sight } from '../../access/sight';

/** Whether a reader may see whose call an example is. */
export function seesCall(sight: Sight, { from, dial }: Pick<AskedCall, 'from' | 'dial'>): boolean {
  if (sight.all) return true;
  const { plan } = sight;
  const trunk = plan.trunks.find((t) => from === `trunk:${t.id}`);
  if (trunk) return sight.sees('trunk', trunk);
  const phone = plan.extensions.find((e) => e.digits === from);
  if (phone) return sight.sees('extension', phone);
  const number = plan.numbers.find((n) => n.e164 === dial);
  return number !== undefined && sight.sees('number', number);
}
