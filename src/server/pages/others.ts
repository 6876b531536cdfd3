import { notFound } from 'next/navigation';
import { historySchema } from '@/contract/work';
import { KINDS, OBJECT_KINDS } from '@/core/plan';
import { RIGHTS, RIGHT_WORDS, UNLIMITED_RIGHTS } from '@/contract/rights';
import { LIMIT_WORDS } from '@/core/acts/limits';
import { AREAS, AREA_WORDS } from '@/core/plan/facts/area';
import { listAdministrators } from '../access/administrators';
import { limitUse, readLimits } from '../access/organisation-limits';
import { Refused, may, mayEverywhere } from '../access/rights';
import { listRoles } from '../access/roles';
import { hasSecondFactor } from '../access/second-factor';
import { listSessions } from '../access/sessions';
import { readSettings } from '../access/settings';
import { reading } from '../db/pool';
import { listMail } from '../mail/queue';
import { mailSettings } from '../mail/settings';
import { listApiTokens } from '../access/tokens';
import { goingPolicy, listGoings, listRevisions } from '../draft';
import { readActs } from '../history/acts';
import { deadJobs } from '../jobs/jobs';
import { leaveProposal } from '../operations/people';
import { listBlocked } from '../state/blocked';
import { losing } from '../state/losing';
import { left } from './ledgers';
import { askForPage, pageActor, pageToken } from './reader';

/* Pages that are neither a list nor one object. */

/** What is not there, or not for this reader, is a page that is not there. */
async function foundOr404<T>(asked: Promise<T | null>): Promise<T> {
  try {
    const found = await asked;
    if (found !== null) return found;
  } catch (e) {
    if (!(e instanceof Refused && (e.status === 404 || e.status === 403))) throw e;
  }
  notFound();
}

export async function goLivePage(asked: { kind?: string; by?: string; act?: string }) {
  const reader = await pageActor();
  const query = { kind: asked.kind ?? '', by: asked.by ?? '', act: '', after: '' };
  const goes = may(reader, 'goLive') && mayEverywhere(reader, 'look');
  const [pending, revisions, goings, policy] = await Promise.all([
    askForPage('pending', { reader, ...query }),
    listRevisions(reader),
    listGoings(reader),
    goes ? goingPolicy(reader, Date.now()) : { secondPerson: false, quietUntil: null },
  ]);
  return {
    pending,
    asked: { kind: query.kind, by: query.by, act: asked.act ?? '' },
    mayGoLive: goes,
    goings,
    policy,
    mayOverride: may(reader, 'administer'),
    gate: goes ? askForPage('gate', {}) : null,
    mayAsk: may(reader, 'ask'),
    losing: goes ? await losing(reader) : [],
    mayEdit: may(reader, 'edit'),
    mayReplay: may(reader, 'seeCalls') && may(reader, 'ask'),
    me: reader.name,
    account: reader.account,
    live: revisions[0] ?? null,
  };
}

export async function revisionPage(text: string, asked: string | undefined) {
  const reader = await pageActor();
  const number = Number(text);
  const revisions = await listRevisions(reader);
  const revision = revisions.find((r) => r.number === number);
  if (!revision || !mayEverywhere(reader, 'look')) notFound();
  const against =
    asked && /^[0-9]+$/.test(asked) && revisions.some((r) => r.number === Number(asked))
      ? Number(asked)
      : asked === 'draft' || number === 1
        ? ('draft' as const)
        : number - 1;
  const [from, to] = against === 'draft' ? [number, 'draft' as const] : [against, number];
  return {
    revision,
    revisions,
    against,
    from,
    to,
    comparison: await askForPage('comparison', { reader, from, to, after: '' }),
    mayEdit: may(reader, 'edit'),
  };
}

export const revisionsPage = async () => listRevisions(await pageActor());

export async function planTextPage() {
  const reader = await pageActor();
  if (!mayEverywhere(reader, 'look')) notFound();
  return { mayEdit: mayEverywhere(reader, 'edit') };
}

export async function historyPage(searchParams: Record<string, string | undefined>) {
  const reader = await pageActor();
  // An address that somebody has changed by hand is read as far as it makes sense.
  const read = historySchema.safeParse(searchParams);
  const asked = read.success ? read.data : historySchema.parse({});
  const { object, kind, who, from, to, batch } = asked;
  return {
    asked: { object, kind, who, from, to, batch },
    first: await readActs(reader, asked),
    kinds: OBJECT_KINDS.map((k) => ({ id: k, label: KINDS[k].word })),
    mayUndo: may(reader, 'edit'),
  };
}

export async function newExtensionPage(asked: { site?: string; like?: string }) {
  const reader = await pageActor();
  const page = await askForPage('newExtension', { reader, asked });
  return { ...page, limits: await limitUse(await askForPage('used', {})) };
}

export async function importPage() {
  const page = await newExtensionPage({});
  const reader = await pageActor();
  const options = (list: readonly { id: string; name: string }[]) => list.map((o) => ({ id: o.id, label: o.name }));
  return {
    account: reader.account,
    mayImport: page.canEdit && may(reader, 'bulk'),
    sheet: 'people' as const,
    words: 'people',
    listPath: '/people',
    asks: { site: true, class: true, teams: true },
    sites: options(page.sites),
    classes: page.classes,
    defaultClass: page.defaultClass,
    limits: page.limits,
  };
}

export async function leavePage(id: string) {
  const reader = await pageActor();
  const first = await foundOr404(leaveProposal(reader, id));
  const [people, destinations] = await Promise.all([
    askForPage('options', { reader, target: 'person', text: '' }),
    askForPage('options', { reader, target: 'destination', text: '' }),
  ]);
  return { id, account: reader.account, first, people: people.filter((p) => p.id !== id), destinations, many: true };
}

export async function movePage(id: string) {
  const reader = await pageActor();
  return { ...(await foundOr404(askForPage('movePage', { reader, id }))), account: reader.account };
}

export const sameAsPage = async (id: string, asked: string | undefined) =>
  foundOr404(askForPage('sameAsPage', { reader: await pageActor(), id, asked }));

export const addNumbersPage = async (site: string | undefined) =>
  askForPage('addNumbersPage', { reader: await pageActor(), site });

export const newSitePage = async () => askForPage('newSite', { reader: await pageActor() });

export async function administratorsPage() {
  const reader = await pageActor();
  if (!may(reader, 'administer')) notFound();
  const [administrators, roles, { sites }, dead] = await Promise.all([
    listAdministrators(reader),
    listRoles(),
    askForPage('organisation', { reader }),
    deadJobs(reader),
  ]);
  return {
    me: reader.account,
    administrators,
    roles,
    dead,
    rights: RIGHTS.map((r) => ({ right: r, words: RIGHT_WORDS[r], unlimited: UNLIMITED_RIGHTS.includes(r) })),
    areas: AREAS.map((a) => ({ id: a, label: AREA_WORDS[a] })),
    sites,
  };
}

export async function settingsPage() {
  const reader = await pageActor();
  const manages = may(reader, 'administer');
  const { used, form } = await askForPage('organisation', { reader });
  return {
    name: reader.name,
    role: reader.role.name,
    settings: await readSettings(),
    maySet: may(reader, 'changeSettings'),
    tokens: manages ? await listApiTokens(reader) : null,
    roles: manages ? (await listRoles()).map(({ id, name }) => ({ id, name })) : [],
    secondFactor: await hasSecondFactor(reader),
    sessions: await listSessions(reader, await pageToken()),
    limits: await readLimits(),
    limitWords: LIMIT_WORDS,
    used,
    mayAdminister: manages,
    organisation: form,
    mail: may(reader, 'changeSettings')
      ? { settings: await reading(mailSettings), mails: (await listMail()).slice(0, MAILS_SHOWN) }
      : null,
  };
}

const MAILS_SHOWN = 12;

export async function newTrunkPage() {
  const page = await askForPage('newTrunkPage', { reader: await pageActor() });
  return { ...page, limits: await left('channels') };
}

/** Callers who are turned away at once, and where the plan turns callers away. */
export async function blockedPage() {
  const reader = await pageActor();
  return {
    blocked: await listBlocked(reader),
    plan: await askForPage('blockedByPlan', { reader }),
    account: reader.account,
    may: may(reader, 'actNow'),
  };
}

/** What a rehearsal begins with: who calls, what is dialled, when, and what was done so far. */
export async function rehearsalPage(asked: Record<string, string | undefined>) {
  const actor = await pageActor();
  if (!may(actor, 'ask')) notFound();
  const { from = '', dial = '', at = 'now', did = '' } = asked;
  return {
    from: from.slice(0, 100),
    dial: dial.slice(0, 100),
    at: at.slice(0, 60),
    did: did.slice(0, 4000),
    mayEdit: may(actor, 'edit'),
  };
}

/** What an attendant that begins with its greeting may name. */
export async function attendantBegun() {
  const reader = await pageActor();
  const data = await askForPage('attendantBegun', { reader });
  if (!data) notFound();
  return { ...data, limits: await left('attendants') };
}

/** Only whoever may ask what happens to calls opens the page. */
export async function mayAskPage(): Promise<void> {
  if (!may(await pageActor(), 'ask')) notFound();
}

/** Between which plans the impact is asked for: live and the draft, unless revisions are named. */
export async function impactPage(asked: { from?: string; to?: string }) {
  await mayAskPage();
  const plan = (text: string | undefined, other: string) =>
    text !== undefined && /^(draft|live|[0-9]{1,9})$/.test(text) ? text : other;
  return { from: plan(asked.from, 'live'), to: plan(asked.to, 'draft') };
}
