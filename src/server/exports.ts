import { z } from 'zod';
import { writeCards, writeCsv } from '@/core/formats';
import { directoryOf, writeSheet } from '@/core/acts/import';
import type { Extension } from '@/core/plan';
import { demand, type Actor } from './access/rights';
import { draftPlan } from './draft';
import { writeWorkbook } from './import/workbook';
import { fitting } from './ledger/index-of';

/* Files out: sheets that can be imported again, and the directory. */

export const exportSchema = z.strictObject({
  format: z.enum(['csv', 'xlsx']).default('csv'),
  filter: z.string().max(200).default(''),
  site: z.string().max(36).default(''),
  team: z.string().max(36).default(''),
  class: z.string().max(36).default(''),
  kind: z.string().max(36).default(''),
});

export const directorySchema = z.strictObject({
  format: z.enum(['csv', 'vcard']).default('vcard'),
  site: z.string().max(36).default(''),
});

async function chosen(actor: Actor, filter: string, facets: Record<string, string>) {
  demand(actor, 'look');
  const draft = await draftPlan();
  const found = fitting(actor, draft, 'extension', { filter, sort: '', facets });
  return { plan: draft.plan, extensions: found.map((e) => e.object as Extension) };
}

const file = (content: string | Buffer, type: string, name: string) =>
  new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });

/** Extensions with their people and mailboxes as CSV or a workbook; imported again it changes nothing. */
export async function exportSheet(actor: Actor, ask: z.output<typeof exportSchema>): Promise<Response> {
  const { filter, format, ...facets } = ask;
  const { plan, extensions } = await chosen(actor, filter, facets);
  const rows = writeSheet(plan, extensions);
  return format === 'csv'
    ? file(writeCsv(rows), 'text/csv; charset=utf-8; header=present', 'extensions.csv')
    : file(
        await writeWorkbook(rows, 'Extensions'),
        'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        'extensions.xlsx',
      );
}

/** The directory as vCard 4 (RFC 6350) or CSV. */
export async function exportDirectory(actor: Actor, ask: z.output<typeof directorySchema>): Promise<Response> {
  const { plan, extensions } = await chosen(actor, '', { site: ask.site });
  const cards = directoryOf(plan, extensions);
  if (ask.format === 'vcard')
    return file(writeCards(cards, 'internal.invalid'), 'text/vcard; charset=utf-8', 'directory.vcf');
  const head = ['Name', 'Kind', 'Extension', 'Number', 'E-mail', 'Team'];
  const rows = cards.map((c) => [
    c.name,
    c.kind === 'individual' ? 'person' : 'place',
    c.extension,
    c.number ?? '',
    c.email ?? '',
    c.unit,
  ]);
  return file(writeCsv([head, ...rows]), 'text/csv; charset=utf-8; header=present', 'directory.csv');
}
