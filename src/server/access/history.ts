import { change, type Writer } from '../db/pool';

export type HistoryAction =
  | 'signed-in'
  | 'sign-in-refused'
  | 'token-made'
  | 'token-revoked'
  | 'password-shown'
  | 'pin-set'
  | 'pin-refused'
  | 'message-handled'
  | 'recording-heard'
  | 'mail-settings-changed'
  | 'person-invited'
  | 'person-joined'
  | 'presence-set'
  | 'reach-set'
  | 'reach-ended'
  | 'greeting-set'
  | 'greeting-ended'
  | 'agent-set'
  | 'called-back'
  | 'callback-asked'
  | 'forwarding-set'
  | 'forwarding-ended'
  | 'notice-set'
  | 'notice-ended'
  | 'switch-set'
  | 'calendar-address-made'
  | 'calendar-address-revoked'
  | 'calendar-feed-set'
  | 'calendar-feed-dropped'
  | 'caller-blocked'
  | 'caller-unblocked'
  | 'problem-muted'
  | 'problem-counted'
  | 'rehearsal-kept'
  | 'rehearsal-dropped'
  | 'settings-changed'
  | 'password-changed'
  | 'second-factor-on'
  | 'second-factor-off'
  | 'session-ended'
  | 'owner-made'
  | 'administrator-added'
  | 'administrator-changed'
  | 'role-made'
  | 'role-changed'
  | 'role-deleted'
  | 'limits-changed'
  | 'imported'
  | 'calls-imported'
  | 'calls-exported'
  | 'calls-erased';

/** What was done, and of whom. */
export interface HistoryAct {
  action: HistoryAction;
  /** the object or account it was done to */
  object?: string | null;
  /** its name at that time: a PIN is somebody's, whoever it is called later */
  of?: string;
  detail?: Record<string, unknown> | null;
}

/** Records what was done about access and state, in the transaction that does it. Never holds a secret. */
export async function recordHistory(
  connection: Writer,
  who: { account: string | null; address: string },
  { action, object = null, of, detail = null }: HistoryAct,
): Promise<void> {
  const kept = of === undefined ? detail : { of, ...detail };
  await change(
    connection,
    'INSERT INTO history (at, account, action, object_id, detail, address) VALUES (?, ?, ?, ?, ?, ?)',
    [new Date(), who.account, action, object, kept === null ? null : JSON.stringify(kept), who.address],
  );
}
