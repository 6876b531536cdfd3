import { z } from 'zod';
import { administratorChangeSchema, newAdministratorSchema } from '../access/administrators';
import { roleSchema } from '../access/roles';
import { limitsSchema } from '../draft/limits';
import { historySchema } from '../history/history';
import { operation } from './operation';

const code = z.string().max(12);

/** Operations on administrators, roles, sessions, second factors, limits, history and long work. */
export const accessOperations = {
  signInCode: operation({
    method: 'post',
    path: '/session/code',
    summary: 'Give the one-time code that a sign-in waits for (RFC 6238)',
    right: null,
    body: z.strictObject({ code }),
  }),
  sessions: operation({
    method: 'get',
    path: '/sessions',
    summary: 'Open sessions: your own, or everybody’s when you manage administrators',
    right: 'signed-in',
  }),
  endSession: operation({ method: 'delete', path: '/sessions/{id}', summary: 'End a session', right: 'signed-in' }),
  ownPassword: operation({
    method: 'put',
    path: '/account/password',
    summary: 'Change your own password',
    right: 'signed-in',
    body: z.strictObject({ old: z.string().max(200), password: z.string().max(200) }),
  }),
  offerSecondFactor: operation({
    method: 'post',
    path: '/account/second-factor',
    summary: 'A new secret for your authenticator; nothing is kept before a code proves it',
    right: 'signed-in',
  }),
  startSecondFactor: operation({
    method: 'put',
    path: '/account/second-factor',
    summary: 'Turn your second factor on',
    right: 'signed-in',
    body: z.strictObject({ secret: z.string().max(120), code }),
  }),
  endSecondFactor: operation({
    method: 'delete',
    path: '/account/second-factor',
    summary: 'Turn your second factor off',
    right: 'signed-in',
  }),
  administrators: operation({
    method: 'get',
    path: '/administrators',
    summary: 'Everybody who administers',
    right: 'administer',
  }),
  addAdministrator: operation({
    method: 'post',
    path: '/administrators',
    summary: 'Add an administrator; the password is given once and has to be changed at the first sign-in',
    right: 'administer',
    body: newAdministratorSchema,
  }),
  changeAdministrator: operation({
    method: 'put',
    path: '/administrators/{id}',
    summary: 'Change name or role of an administrator, or block the account',
    right: 'administer',
    body: administratorChangeSchema,
  }),
  resetPassword: operation({
    method: 'post',
    path: '/administrators/{id}/password',
    summary: 'Give an administrator a new password, shown once',
    right: 'administer',
  }),
  resetSecondFactor: operation({
    method: 'delete',
    path: '/administrators/{id}/second-factor',
    summary: 'Turn an administrator’s second factor off',
    right: 'administer',
  }),
  roles: operation({ method: 'get', path: '/roles', summary: 'Every role with its rights', right: 'administer' }),
  makeRole: operation({
    method: 'post',
    path: '/roles',
    summary: 'Make a role of rights per area and site',
    right: 'administer',
    body: roleSchema,
  }),
  changeRole: operation({
    method: 'put',
    path: '/roles/{id}',
    summary: 'Change a role of your own',
    right: 'administer',
    body: roleSchema,
  }),
  deleteRole: operation({
    method: 'delete',
    path: '/roles/{id}',
    summary: 'Delete a role that nobody has',
    right: 'administer',
  }),
  limits: operation({
    method: 'get',
    path: '/limits',
    summary: 'Limits of the organisation, with what is used',
    right: 'look',
  }),
  setLimits: operation({
    method: 'put',
    path: '/limits',
    summary: 'Set the limits of the organisation; they act at once',
    right: 'changeSettings',
    body: limitsSchema,
  }),
  history: operation({
    method: 'get',
    path: '/history',
    summary: 'Who did what, when and from where; as JSON by pages or as CSV',
    right: 'look',
    query: historySchema,
  }),
  undoBatch: operation({
    method: 'post',
    path: '/history/{batch}/undo',
    summary: 'Take back everything that was done in one act, where it still stands',
    right: 'edit',
  }),
  job: operation({
    method: 'get',
    path: '/jobs/{id}',
    summary: 'How far long work is, and what came of it',
    right: 'signed-in',
  }),
  stopJob: operation({ method: 'delete', path: '/jobs/{id}', summary: 'Stop long work', right: 'signed-in' }),
};
