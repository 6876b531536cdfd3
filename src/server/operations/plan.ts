import type { goingFacts } from '@/contract/going-live';
import type { planFacts } from '@/contract/plan';
import type { problemFacts } from '@/contract/problems';
import { isKind } from '@/core/plan';
import { Refused, demand, demandEverywhere } from '../access/rights';
import {
  agreeGoing,
  applyEdits,
  bringBack,
  bringBackOne,
  goLive,
  listGoings,
  listRevisions,
  planGoing,
  undoEdit,
  undoLast,
  withdrawGoing,
} from '../draft';
import { ask } from '../engine';
import { openApiDocument } from '@/contract/openapi';
import { muteProblem, mutedAt, unmuteProblem } from '../state/muted';
import { piecesAround, situationAt } from '../state/situation';
import type { Handlers } from './handler';
import { health } from './health';

/** The number in a path; 404 for anything else. */
function revisionNumber(text: string): number {
  if (!/^[0-9]{1,9}$/.test(text)) throw new Refused(404, 'no-such-revision', `There is no revision ${text}.`, 'number');
  return Number(text);
}

export const planHandlers: Handlers<keyof typeof planFacts | keyof typeof problemFacts | keyof typeof goingFacts> = {
  health,
  openapi: async () => openApiDocument(),
  plan: async ({ actor, query, request }) => {
    // The document is whole or not at all.
    demandEverywhere(actor, 'look');
    const text = await ask('planDocument', query, { signal: request.signal });
    return new Response(new Uint8Array(text), {
      headers: {
        'content-type': query.as === 'json' ? 'application/json' : 'application/yaml; charset=utf-8',
        'cache-control': 'no-store',
      },
    });
  },
  importPlan: async ({ actor, query, file, request }) => {
    demandEverywhere(actor, 'edit');
    demandEverywhere(actor, 'look');
    const now = Date.now();
    const input = { reader: actor, text: file.toString('utf8'), now, situation: await situationAt(now) };
    const { told, edits } = await ask('planImport', input, { signal: request.signal });
    if (!query.apply) return { ...told, applied: false };
    if (query.draftVersion !== told.draftVersion)
      throw new Refused(409, 'draft-moved', 'The draft has changed since you looked; look again.', 'draftVersion');
    if (edits.length > 0) await applyEdits(actor, edits, { act: `took in a plan document: ${edits.length} objects` });
    return { ...told, applied: true };
  },
  edits: ({ actor, query, request }) => ask('pending', { reader: actor, ...query }, { signal: request.signal }),
  edit: ({ actor, body }) => applyEdits(actor, body.edits, { act: body.act }),
  foresee: async ({ actor, body, request }) => ({
    problems: await ask('foresee', { reader: actor, ...body }, { signal: request.signal }),
  }),
  undo: ({ actor, body }) => {
    if (body.kind === undefined && body.id === undefined) return undoLast(actor);
    if (body.kind === undefined || body.id === undefined)
      throw new Refused(400, 'half-named', 'Name kind and id, or neither.', body.kind ? 'id' : 'kind');
    return undoEdit(actor, body.kind, body.id);
  },
  consequences: async ({ actor, params, request }) => {
    if (!isKind(params.kind))
      throw new Refused(404, 'no-such-kind', `There is no kind of object called ${params.kind}.`, 'kind');
    const now = Date.now();
    const around = await ask(
      'consequences',
      {
        reader: actor,
        kind: params.kind,
        id: params.id,
        now,
        situation: await situationAt(now),
        mutes: await mutedAt(new Date(now)),
      },
      { signal: request.signal },
    );
    if (!around) throw new Refused(404, 'no-such-object', 'There is no such object.', 'id');
    const {
      course: _course,
      referredToBy: _referredToBy,
      picture: _picture,
      of: _of,
      isPlace: _isPlace,
      ...rest
    } = around;
    return rest;
  },
  leaving: ({ actor, body, request }) => {
    demandEverywhere(actor, 'goLive');
    return ask('leaving', { reader: actor, ...body }, { signal: request.signal });
  },
  problems: async ({ actor, query, request }) =>
    ask('problems', { reader: actor, ...query, mutes: await mutedAt(new Date()) }, { signal: request.signal }),
  mendProblem: async ({ actor, body }) => {
    demand(actor, 'edit');
    const { edits, act } = await ask('mendEdits', { reader: actor, ...body });
    return { ...(await applyEdits(actor, edits, { act })), label: act };
  },
  muteProblem: ({ actor, body }) => muteProblem(actor, body),
  unmuteProblem: async ({ actor, params }) => {
    await unmuteProblem(actor, params.id);
    return {};
  },
  goLive: ({ actor, body }) => goLive(actor, body),
  plannedGoings: async ({ actor }) => ({ goings: await listGoings(actor) }),
  planGoing: ({ actor, body }) => planGoing(actor, body),
  agreeGoing: ({ actor, params }) => agreeGoing(actor, params.id),
  withdrawGoing: ({ actor, params }) => withdrawGoing(actor, params.id),
  revisions: async ({ actor }) => ({ revisions: await listRevisions(actor) }),
  compare: ({ actor, query, params, request }) => {
    demandEverywhere(actor, 'look');
    const from = revisionNumber(params.number);
    return ask('comparison', { reader: actor, from, ...query }, { signal: request.signal });
  },
  bringBack: ({ actor, params }) => bringBack(actor, revisionNumber(params.number)),
  bringBackOne: ({ actor, params }) =>
    bringBackOne(actor, revisionNumber(params.number), { kind: params.kind, id: params.id }),
  ledger: ({ actor, query, params, request }) => {
    const { filter, sort, after, ...facets } = query as Record<string, string> &
      Record<'filter' | 'sort' | 'after', string>;
    const ask_ = { filter, sort, facets };
    return ask('ledgerPage', { reader: actor, kind: params.kind, ask: ask_, after }, { signal: request.signal });
  },
  landings: async ({ actor, body, request }) => {
    const now = Date.now();
    const input = {
      reader: actor,
      ids: body.ids,
      now,
      situation: await situationAt(now),
      pieces: await piecesAround(now),
    };
    return { landings: await ask('landings', input, { signal: request.signal }) };
  },
  options: async ({ actor, query, params, request }) => ({
    options: await ask(
      'options',
      { reader: actor, target: params.target, text: query.text },
      { signal: request.signal },
    ),
  }),
};
