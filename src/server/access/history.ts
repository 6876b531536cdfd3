import { change, reading } from '../db/pool';

export type HistoryAction =
  | 'signed-in'
  | 'sign-in-refused'
  | 'token-made'
  | 'token-revoked'
  | 'password-shown'
  | 'pin-set'
  | 'forwarding-set'
  | 'forwarding-ended'
  | 'settings-changed'
  | 'password-changed'
  | 'second-factor-on'
  | 'second-factor-off'
  | 'session-ended'
  | 'administrator-added'
  | 'administrator-changed'
  | 'role-made'
  | 'role-changed'
  | 'role-deleted'
  | 'limits-changed'
  | 'imported';

/** Records what was done about access and state. Never holds a secret. */
export async function recordHistory(
  who: { account: string | null; address: string },
  action: HistoryAction,
  objectId: string | null,
  detail: Record<string, unknown> | null,
): Promise<void> {
  await reading((c) =>
    change(c, 'INSERT INTO history (at, account, action, object_id, detail, address) VALUES (?, ?, ?, ?, ?, ?)', [
      new Date(),
      who.account,
      action,
      objectId,
      detail === null ? null : JSON.stringify(detail),
      who.address,
    ]),
  );
}
