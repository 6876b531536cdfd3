import { z } from 'zod';
import { planSchema } from '@/core/plan';
import { situationSchema } from '@/core/routing';
import { newExtensionSchema } from '../draft/add-extension';
import { editSchema } from '../draft/edit';
import { forwardingSchema } from '../state/forwarding';
import { operation } from './operation';
import { accessOperations } from './operations-access';
import { peopleOperations } from './operations-people';

const which = z
  .union([
    z.enum(['draft', 'live']),
    z.string().regex(/^[0-9]{1,9}$/, 'must be draft, live or the number of a revision'),
  ])
  .default('draft');

const question = {
  from: z.string().max(100),
  dial: z.string().max(100),
  at: z.string().max(60).default('now'),
  of: which,
  calling: z.string().max(40).nullable().default(null),
};

const landing = z.object({
  kind: z.string(),
  id: z.string().nullable(),
  digits: z.string().nullable(),
  label: z.string(),
});
const traceAnswer = z.looseObject({
  outcome: z.enum(['routed', 'refused', 'unroutable', 'incomplete', 'failed', 'loop']),
  lands: landing.nullable(),
  then: z.array(z.object({ when: z.string(), afterSeconds: z.number(), lands: landing })),
  kind: z.string().nullable(),
  rule: z.string().nullable(),
  trunk: z.string().nullable(),
  digitsSent: z.string().nullable(),
  shownNumber: z.string().nullable(),
  e164: z.string().nullable(),
  cause: z.object({ q850: z.number(), sip: z.number() }).nullable(),
  secondsWaited: z.number(),
  steps: z.array(
    z.looseObject({
      type: z.string(),
      sentence: z.string(),
      notTaken: z.array(z.looseObject({ rule: z.string(), why: z.string() })),
    }),
  ),
});
const edited = z.object({ draftVersion: z.number(), batch: z.string(), rowVersions: z.record(z.string(), z.number()) });
const note = z.string().trim().max(500).default('');
const number = z.coerce.number().int().min(0);

/** Every operation of the API by name. */
export const operations = {
  ...peopleOperations,
  ...accessOperations,
  health: operation({
    method: 'get',
    path: '/health',
    summary: 'Whether application and database work',
    right: null,
    answer: z.object({ ok: z.boolean(), draftVersion: z.number(), revision: z.number() }),
  }),
  openapi: operation({ method: 'get', path: '/openapi.json', summary: 'This document', right: null }),
  signIn: operation({
    method: 'post',
    path: '/session',
    summary: 'Sign in; the session comes as a cookie',
    right: null,
    body: z.strictObject({ name: z.string().max(80), password: z.string().max(200) }),
  }),
  signOut: operation({ method: 'delete', path: '/session', summary: 'Sign out', right: null }),
  plan: operation({
    method: 'get',
    path: '/plan',
    summary: 'The plan as one document: draft, live or revision N',
    right: 'look',
    query: z.strictObject({ of: which }),
    answer: planSchema,
  }),
  traceGet: operation({
    method: 'get',
    path: '/trace',
    summary: 'What happens to one call and why',
    right: 'ask',
    query: z.strictObject(question),
    answer: traceAnswer,
  }),
  tracePost: operation({
    method: 'post',
    path: '/trace',
    summary: 'The same with a situation',
    right: 'ask',
    body: z.strictObject({
      ...question,
      enBloc: z.boolean().optional(),
      withhold: z.boolean().optional(),
      situation: situationSchema.optional(),
    }),
    answer: traceAnswer,
  }),
  ask: operation({
    method: 'get',
    path: '/ask',
    summary: 'The Ask line: finds objects, or answers from > digits @ when in live and draft',
    right: 'ask',
    query: z.strictObject({ text: z.string().max(200) }),
  }),
  edit: operation({
    method: 'post',
    path: '/edits',
    summary: 'Edit the draft: all of these edits or none',
    right: 'edit',
    body: z.strictObject({ edits: z.array(editSchema).min(1).max(10_000) }),
    answer: edited,
  }),
  edits: operation({
    method: 'get',
    path: '/edits',
    summary: 'What differs between live and draft, object by object',
    right: 'look',
  }),
  undo: operation({
    method: 'post',
    path: '/edits/undo',
    summary: 'Undo one object’s edits, or your last edit when none is named',
    right: 'edit',
    body: z.strictObject({ kind: editSchema.shape.kind, id: editSchema.shape.id }).partial(),
    answer: z.looseObject({ draftVersion: z.number() }),
  }),
  addExtension: operation({
    method: 'post',
    path: '/extensions',
    summary: 'Add an extension with mailbox, PIN, SIP password and number in one act',
    right: 'edit',
    body: newExtensionSchema,
    answer: edited.extend({ id: z.string() }),
  }),
  sipPassword: operation({
    method: 'post',
    path: '/extensions/{id}/sip-password',
    summary: 'Show an extension’s SIP password (recorded), set one, or have one made',
    right: 'seeSecrets',
    body: z.strictObject({
      make: z.boolean().default(false),
      password: z
        .string()
        .regex(/^[\x21-\x7e]{12,64}$/, 'has 12 to 64 letters, digits and signs, no blanks')
        .nullable()
        .default(null),
    }),
    answer: z.object({ password: z.string() }),
  }),
  forwarding: operation({
    method: 'put',
    path: '/extensions/{id}/forwarding',
    summary: 'Set or end personal forwarding; acts at once',
    right: 'setForwarding',
    body: forwardingSchema,
  }),
  trunkPassword: operation({
    method: 'put',
    path: '/trunks/{id}/password',
    summary: 'Set a trunk’s password in the draft',
    right: 'edit',
    body: z.strictObject({ password: z.string().min(1).max(200) }),
    answer: edited,
  }),
  pin: operation({
    method: 'put',
    path: '/mailboxes/{id}/pin',
    summary: 'Set a mailbox PIN; acts at once',
    right: 'resetPin',
    body: z.strictObject({ pin: z.string().max(32) }),
  }),
  goLive: operation({
    method: 'post',
    path: '/live',
    summary: 'Make the draft live as a new revision',
    right: 'goLive',
    body: z.strictObject({ draftVersion: z.number().int(), note }),
    answer: z.looseObject({ number: z.number() }),
  }),
  revisions: operation({
    method: 'get',
    path: '/revisions',
    summary: 'Every revision that ever was live',
    right: 'look',
  }),
  compare: operation({
    method: 'get',
    path: '/revisions/{number}/compare',
    summary: 'What differs from one revision to another or to the draft',
    right: 'look',
    query: z.strictObject({ to: z.union([z.literal('draft'), number]).default('draft') }),
  }),
  bringBack: operation({
    method: 'post',
    path: '/revisions/{number}/draft',
    summary: 'Make the draft equal to a revision',
    right: 'edit',
    answer: edited,
  }),
  tokens: operation({ method: 'get', path: '/tokens', summary: 'API tokens', right: 'administer' }),
  makeToken: operation({
    method: 'post',
    path: '/tokens',
    summary: 'Make an API token; its text is given once',
    right: 'administer',
    body: z.strictObject({
      name: z.string().trim().min(1, 'is empty').max(80),
      role: z.string().max(36),
      days: z.number().int().min(1).max(3650).nullable().default(90),
    }),
    answer: z.object({ id: z.string(), token: z.string() }),
  }),
  revokeToken: operation({
    method: 'delete',
    path: '/tokens/{id}',
    summary: 'Revoke an API token',
    right: 'administer',
  }),
  settings: operation({
    method: 'put',
    path: '/settings',
    summary: 'Change settings of the organisation; they act at once',
    right: 'changeSettings',
    body: z.strictObject({ idleSignOutMinutes: z.number().int().min(1).max(1440) }),
  }),
};
