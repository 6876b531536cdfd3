import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { OBJECT_KINDS, objectsOf, readPlan, type AnyObject, type ObjectKind, type Plan } from '@/core/plan';
import { ensureAccount } from '@/server/access/accounts';
import { READY_ROLES, type Actor } from '@/server/access/rights';
import { keepSecret, strongPassword } from '@/server/access/secrets';
import { change, closePool, reading, writing } from '@/server/db/pool';
import { readVersions } from '@/server/db/versions';
import { applyEdits, goLive, type Edit } from '@/server/draft';
import { ask } from '@/server/engine';
import { prepared } from '@/server/sound/prepare';
import { speechMissing, spokenText } from '@/server/sound/speak';
import { keepSound } from '@/server/sound/store';
import { holdPlansHere } from '@/server/engine/here';
import { loadHistory, pastNotice, pastOf } from './load-history';
import { loadRecordings } from './load-recordings';
import { agentsSignIn, ilseJoins, loadMessages, mailToStandIn } from './load-messages';

/* Loads the demo company once, through the same edits as anybody's: plan, accounts, two revisions, six edits in the draft. */

const DEMO_PASSWORDS: [string, string, string, string][] = [
  ['admin', 'Farida Okonjo', 'owner', 'quay-lantern-42'],
  ['helpdesk', 'Ruaridh Osei', 'helpdesk', 'berth-whistle-17'],
  ['auditor', 'Ines Halloran', 'auditor', 'ledger-beacon-93'],
];

async function main(): Promise<void> {
  const ground = holdPlansHere();
  const past = pastOf(Date.now());
  const accounts = new Map<string, string>();
  for (const [signIn, name, role, password] of DEMO_PASSWORDS)
    accounts.set(signIn, await ensureAccount(signIn, name, role, password, true));
  const colleague = await ensureAccount('m.oduya', 'M. Oduya', 'administrator', null);
  await mailToStandIn();
  if ((await reading(readVersions)).live > 0) return;
  const actor = (account: string, name: string): Actor => ({
    account,
    name,
    signIn: name,
    role: READY_ROLES.find((r) => r.id === 'administrator')!,
    address: '127.0.0.1',
    via: 'session',
  });
  const farida = actor(accounts.get('admin')!, 'Farida Okonjo');
  const oduya = actor(colleague, 'M. Oduya');
  const read = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
  if (!read.ok) throw new Error(read.errors.map((e) => `${e.path}: ${e.sentence}`).join('\n'));
  const { plan } = read;

  await speakPrompts(plan);

  const withSecrets = (kind: ObjectKind, o: AnyObject): AnyObject =>
    kind === 'extension' && 'sipPassword' in o && o.kind !== 'virtual' ? { ...o, sipPassword: { version: 1 } } : o;
  const edits: Edit[] = [
    { kind: 'organisation', id: 'organisation', rowVersion: null, value: plan.organisation },
    ...OBJECT_KINDS.flatMap((kind) =>
      objectsOf(plan, kind).map((o): Edit => ({
        kind,
        id: o.id,
        rowVersion: null,
        value: withSecrets(kind, o) as unknown as Record<string, unknown>,
      })),
    ),
  ];
  if ((await reading(readVersions)).draft === 0) await applyEdits(farida, edits);
  await writing(async (c) => {
    for (const e of plan.extensions)
      if (e.kind !== 'virtual') await keepSecret(c, farida, e.id, 'sip-password', strongPassword());
  });
  await goLive(farida, {
    draftVersion: (await reading(readVersions)).draft,
    note: 'The company as it was taken over',
    override: 'taken over as it runs; what is wrong is mended next',
    leave: [],
  });
  await liveSince(1, past.taken);
  await changeOne(oduya, 'extension', 'e-2108', { ringSeconds: 40 });
  await changeOne(farida, 'inboundRoute', 'in-free', {
    name: 'Bookings freephone',
    note: 'All ten freephone numbers; callers wait in the queue.',
  });
  await goLive(farida, {
    draftVersion: (await reading(readVersions)).draft,
    note: 'Longer ringing at the bookings desk',
    override: '',
    leave: [],
  });
  await liveSince(2, past.second);

  await pastNotice(farida, past.storm);
  await loadHistory(ground, past);
  await loadMessages(Date.now());
  await loadRecordings();
  await ilseJoins();
  await agentsSignIn(farida);

  await changeOne(farida, 'extension', 'e-2109', { name: 'Sorin Vael-Rask' });
  await changeOne(farida, 'number', 'n-441632960150', { note: 'Kept for the new joiner.' });
  await changeOne(oduya, 'class', 'lobby', {
    rights: {
      ...plan.classes.find((c) => c.id === 'lobby')!.rights,
      national: { allow: true, pin: false, forward: false },
      local: { allow: true, pin: false, forward: false },
    },
  });
  await changeOne(oduya, 'trunk', 'kestrel', { keptForIncoming: 6 });
  await changeOne(farida, 'rung', 'out-north-quay-6', { trunks: ['kestrel', 'sundvik'] });
  await changeOne(farida, 'inboundRoute', 'in-main', { leadsTo: 'e-2104' });
}

/** The demo has a past: its revisions have been live for weeks. */
const liveSince = (revision: number, at: number) =>
  writing((c) => change(c, 'UPDATE revision SET at = ? WHERE number = ?', [new Date(at), revision]));

/** Every prompt of the plan spoken from its text, where the program for it is installed. */
async function speakPrompts(plan: Plan): Promise<void> {
  if (await speechMissing()) return;
  for (const version of plan.prompts.flatMap((p) => [p, ...p.versions])) {
    if (version.text === '') continue;
    const made = await prepared(await spokenText(version.text, version.language), null);
    const { id, seconds } = await keepSound(made, null);
    Object.assign(version, { sound: id, seconds });
  }
}

async function changeOne(actor: Actor, kind: ObjectKind, id: string, change: Record<string, unknown>): Promise<void> {
  const [found] = await ask('standing', { of: [{ kind, id }] });
  await applyEdits(actor, [{ kind, id, rowVersion: found!.rowVersion, value: { ...found!.value, ...change } }]);
}

main()
  .finally(closePool)
  .catch((e: unknown) => {
    console.error(e);
    process.exitCode = 1;
  });
