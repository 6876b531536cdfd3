import { z } from 'zod';
import type { UniqueKey } from './kind';

/** The end of the address of a public page, of a queue or of an extension; null: it has none. */
export const callPageField = (description: string) =>
  z
    .string()
    .regex(/^[a-z0-9](?:[a-z0-9-]{0,38}[a-z0-9])$/, 'takes 2 to 40 small letters, digits and hyphens')
    .nullable()
    .default(null)
    .meta({ title: 'Public page', description });

/** Pages of queues and of extensions share their addresses. */
export const CALL_PAGE: UniqueKey<{ callPage: string | null; name: string }> = {
  code: 'page-twice',
  field: 'callPage',
  key: ({ callPage }) => (callPage === null ? null : `page ${callPage}`),
  sentence: ({ callPage }, other) => `The public page ${callPage} is that of ${other.name} already; choose another.`,
};
