import type { DirectoryAsk, ExportAsk } from '@/contract/people';
import { writeCards, writeCsv } from '@/core/formats';
import { demand, type Actor } from '../access/rights';
import { ask } from '../engine';
import { writeWorkbook } from './workbook';

/* Files out: sheets that can be imported again, and the directory. */

const file = (content: string | Buffer, type: string, name: string) =>
  new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });

/** Extensions with their people and mailboxes as CSV or a workbook; imported again it changes nothing. */
export async function exportSheet(actor: Actor, asked: ExportAsk): Promise<Response> {
  demand(actor, 'look');
  const { filter, format, ...facets } = asked;
  const rows = await ask('sheetRows', { reader: actor, filter, facets });
  return format === 'csv'
    ? file(writeCsv(rows), 'text/csv; charset=utf-8; header=present', 'extensions.csv')
    : file(
        await writeWorkbook(rows, 'Extensions'),
        'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        'extensions.xlsx',
      );
}

/** The directory as vCard 4 (RFC 6350) or CSV. */
export async function exportDirectory(actor: Actor, asked: DirectoryAsk): Promise<Response> {
  demand(actor, 'look');
  const cards = await ask('cards', { reader: actor, filter: '', facets: { site: asked.site } });
  if (asked.format === 'vcard')
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
