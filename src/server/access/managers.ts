import { rows, type Writer } from '../db/pool';
import { Refused, mayEverywhere } from './rights';
import { roleById } from './role-rows';

/** Holds every account as it is until the transaction ends: two who take each other's right away go one after the other. */
export const holdAccounts = (c: Writer) =>
  rows(c, 'SELECT id FROM account WHERE person IS NULL ORDER BY id FOR UPDATE');

/** Throws 409 when a transaction would leave nobody who manages administrators; asked after its changes are written. */
export async function demandManager(c: Writer): Promise<void> {
  const all = await rows<{ role: string }>(
    c,
    'SELECT DISTINCT role FROM account WHERE password_hash IS NOT NULL AND blocked_at IS NULL',
  );
  for (const { role: id } of all) {
    const role = await roleById(c, id);
    if (role && mayEverywhere({ role }, 'administer')) return;
  }
  throw new Refused(
    409,
    'last-manager',
    'Nobody would be left who manages administrators; give somebody else that right first.',
  );
}
