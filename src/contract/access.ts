import { z } from 'zod';
import { siteProposalSchema } from '@/core/acts/sites';
import { organisationSchema, site as siteSchema } from '@/core/plan';
import { LIMITS, type LimitName } from '@/core/acts/limits';
import { done, type Facts } from './operation';
import { grantSchema, roleSchema } from './rights';
import { id } from './shared';

/* Sign-in, sessions, administrators, roles, tokens, settings and limits. */

const code = z.string().max(12);
const organisation = organisationSchema.shape;

export const newAdministratorSchema = z.strictObject({
  signIn: z
    .string()
    .trim()
    .regex(/^[a-zA-Z0-9._-]{2,80}$/, 'takes 2 to 80 letters, digits, dots, hyphens and underscores'),
  name: z.string().trim().min(1, 'is empty').max(80),
  role: id,
});

export const administratorChangeSchema = z
  .strictObject({ name: z.string().trim().min(1, 'is empty').max(80), role: id, blocked: z.boolean() })
  .partial();

const forEveryLimit = <T extends z.ZodType>(schema: T) =>
  z.strictObject(Object.fromEntries(LIMITS.map((l) => [l, schema])) as Record<LimitName, T>);

export const limitsSchema = forEveryLimit(z.number().int().min(0).max(1_000_000).nullable());
export type Limits = z.output<typeof limitsSchema>;

/** One limit with what is used of it. */
export const limitUse = z.strictObject({
  name: z.enum(LIMITS),
  words: z.string(),
  most: z.number(),
  used: z.number(),
});
export type LimitUse = z.output<typeof limitUse>;

const session = z.strictObject({
  id: z.string(),
  account: z.string(),
  name: z.string(),
  since: z.string(),
  lastSeen: z.string(),
  address: z.string(),
  /** the browser, as it calls itself */
  agent: z.string(),
  mine: z.boolean(),
});
export type SessionFacts = z.output<typeof session>;

const administrator = z.strictObject({
  id: z.string(),
  signIn: z.string(),
  name: z.string(),
  role: z.string(),
  secondFactor: z.boolean(),
  blockedAt: z.string().nullable(),
  lastSeen: z.string().nullable(),
});
export type Administrator = z.output<typeof administrator>;

const role = z.strictObject({
  id: z.string(),
  name: z.string(),
  grants: z.array(grantSchema),
  /** comes with the program and can't be changed */
  ready: z.boolean(),
});
export type RoleFacts = z.output<typeof role>;

const token = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.string(),
  createdAt: z.string(),
  createdBy: z.string(),
  expiresAt: z.string().nullable(),
  revokedAt: z.string().nullable(),
  lastUsedAt: z.string().nullable(),
});
export type ApiToken = z.output<typeof token>;

export const settingsSchema = z.strictObject({
  idleSignOutMinutes: z.number().int().min(1).max(1440),
  /** from sign-in on, however busy */
  mostSessionHours: z.number().int().min(1).max(720),
  /** whole months that call records are kept, before they go by themselves; null: for ever */
  keepCallsMonths: z.number().int().min(1).max(240).nullable(),
  /** whole days that recordings of calls are kept; null: as long as their calls */
  keepRecordingsDays: z.number().int().min(1).max(3650).nullable(),
  /** people prove a second factor before their own page opens */
  peopleSecondFactor: z.boolean(),
});
export type Settings = z.output<typeof settingsSchema>;

/** What an organisation begins with. */
export const beginSchema = z.strictObject({
  /** the one-time code that the start command printed */
  code: z.string().trim().min(1, 'is empty; the start command printed it').max(60),
  owner: z.strictObject({
    name: newAdministratorSchema.shape.name.meta({ title: 'Your name' }),
    signIn: newAdministratorSchema.shape.signIn.meta({ title: 'Name to sign in with' }),
    password: z.string().max(200).meta({ title: 'Password' }),
  }),
  organisation: z.strictObject({
    name: organisation.name.meta({ title: 'Name of the organisation' }),
    language: organisation.language,
    dayOrder: organisation.dayOrder,
  }),
  site: z.strictObject({
    name: siteSchema.shape.name,
    country: siteSchema.shape.country,
    zone: siteSchema.shape.zone,
    address: siteSchema.shape.address,
    area: siteSchema.shape.area,
  }),
});

const signedIn = z.strictObject({ ok: z.literal(true), waitsForCode: z.boolean() });

export const accessFacts = {
  firstStart: {
    summary: 'Whether nobody owns the organisation yet, and what a country proposes then',
    right: null,
    query: z.strictObject({ country: siteSchema.shape.country.optional() }),
    answer: z.strictObject({ open: z.boolean(), proposal: siteProposalSchema.nullable() }),
  },
  begin: {
    summary: 'Make the owner, the organisation and its first site, with the code that the first start printed',
    right: null,
    body: beginSchema,
    answer: done,
  },
  signIn: {
    summary: 'Sign in; the session comes as a cookie',
    right: null,
    body: z.strictObject({ name: z.string().max(80), password: z.string().max(200) }),
    answer: signedIn,
  },
  signInCode: {
    summary: 'Give the one-time code that a sign-in waits for (RFC 6238)',
    right: null,
    body: z.strictObject({ code }),
    answer: done,
  },
  signOut: { summary: 'Sign out', right: null, answer: done },
  sessions: {
    summary: 'Open sessions: your own, or everybody’s when you manage administrators',
    right: 'signed-in',
    noTokens: true,
    answer: z.strictObject({ sessions: z.array(session) }),
  },
  endSession: { summary: 'End a session', right: 'signed-in', noTokens: true, answer: done },
  ownPassword: {
    summary: 'Change your own password; your other sessions end',
    right: 'signed-in',
    noTokens: true,
    body: z.strictObject({ old: z.string().max(200), password: z.string().max(200) }),
    answer: done,
  },
  offerSecondFactor: {
    summary: 'A new secret for your authenticator; nothing is kept before a code proves it',
    right: 'signed-in',
    noTokens: true,
    answer: z.strictObject({ secret: z.string(), uri: z.string(), svg: z.string() }),
  },
  startSecondFactor: {
    summary: 'Turn your second factor on',
    right: 'signed-in',
    noTokens: true,
    body: z.strictObject({ secret: z.string().max(120), code }),
    answer: done,
  },
  endSecondFactor: { summary: 'Turn your second factor off', right: 'signed-in', noTokens: true, answer: done },
  administrators: {
    summary: 'Everybody who administers',
    right: 'administer',
    answer: z.strictObject({ administrators: z.array(administrator) }),
  },
  addAdministrator: {
    summary: 'Add an administrator; the password is given once and has to be changed at the first sign-in',
    right: 'administer',
    body: newAdministratorSchema,
    answer: z.strictObject({ id: z.string(), password: z.string() }),
  },
  changeAdministrator: {
    summary: 'Change name or role of an administrator, or block the account',
    right: 'administer',
    body: administratorChangeSchema,
    answer: done,
  },
  resetPassword: {
    summary: 'Give an administrator a new password, shown once',
    right: 'administer',
    answer: z.strictObject({ password: z.string() }),
  },
  resetSecondFactor: { summary: 'Turn an administrator’s second factor off', right: 'administer', answer: done },
  roles: {
    summary: 'Every role with its rights',
    right: 'administer',
    answer: z.strictObject({ roles: z.array(role) }),
  },
  makeRole: {
    summary: 'Make a role of rights per area and site',
    right: 'administer',
    body: roleSchema,
    answer: z.strictObject({ id: z.string() }),
  },
  changeRole: {
    summary: 'Change a role of your own',
    right: 'administer',
    body: roleSchema,
    answer: z.strictObject({ id: z.string() }),
  },
  deleteRole: { summary: 'Delete a role that nobody has', right: 'administer', answer: done },
  tokens: { summary: 'API tokens', right: 'administer', answer: z.strictObject({ tokens: z.array(token) }) },
  makeToken: {
    summary: 'Make an API token; its text is given once',
    right: 'administer',
    body: z.strictObject({
      name: z.string().trim().min(1, 'is empty').max(80),
      role: id,
      days: z.number().int().min(1).max(3650).nullable().default(90),
    }),
    answer: z.strictObject({ id: z.string(), token: z.string() }),
  },
  revokeToken: { summary: 'Revoke an API token', right: 'administer', answer: done },
  settings: {
    summary: 'Change settings of the organisation; they act at once',
    right: 'changeSettings',
    body: settingsSchema.partial().refine((s) => Object.keys(s).length > 0, 'names no setting'),
    answer: done,
  },
  limits: {
    summary: 'Limits of the organisation, with what is used',
    right: 'look',
    answer: z.strictObject({ limits: limitsSchema, use: z.array(limitUse) }),
  },
  setLimits: {
    summary: 'Set the limits of the organisation; they act at once',
    right: 'changeSettings',
    body: limitsSchema,
    answer: done,
  },
} as const satisfies Record<string, Facts>;
