import type { DirectoryAsk, ExportAsk } from '@/contract/people';
import { writeCards, writeCsv } from '@/core/formats';
import { KINDS } from '@/core/plan';
import { SHEET_KINDS, isSheetKind } from '@/core/plan/facts/sheet-kinds';
import { Refused, demand, type Actor } from '../access/rights';
import { ask } from '../engine';
import { writeWorkbook } from './workbook';

/* Files out: sheets that can be imported again, and the directory. */

/** A file that is saved under a name. */
export const file = (content: string | Buffer, type: string, name: string) =>
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
  return sheet(await ask('sheetRows', { reader: actor, filter, facets }), format, 'extensions');
}

/** All objects of a kind that somebody sees, as CSV or a workbook; imported again it changes nothing. */
export async function exportKind(actor: Actor, kind: string, format: ExportAsk['format']): Promise<Response> {
  demand(actor, 'look');
  if (!isSheetKind(kind))
    throw new Refused(404, 'no-such-sheet', `There is no sheet of ${kind}; there is ${SHEET_KINDS.join(', ')}.`);
  return sheet(await ask('kindRows', { reader: actor, kind }), format, KINDS[kind].words.replaceAll(' ', '-'));
}

async function sheet(rows: string[][], format: ExportAsk['format'], name: string): Promise<Response> {
  if (format === 'csv') return file(writeCsv(rows), 'text/csv; charset=utf-8; header=present', `${name}.csv`);
  return file(
    await writeWorkbook(rows, name.charAt(0).toUpperCase() + name.slice(1)),
    'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    `${name}.xlsx`,
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
