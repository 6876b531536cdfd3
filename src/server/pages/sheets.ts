import { notFound } from 'next/navigation';
import { KINDS, fieldsOf } from '@/core/plan';
import { PLACES } from '@/core/plan/facts/places';
import { isSheetKind, type SheetKind } from '@/core/plan/facts/sheet-kinds';
import { may } from '../access/rights';
import { askForPage, pageActor } from './reader';

/** The page of a sheet of one kind of object. */
export async function kindImportPage(kind: string) {
  if (!isSheetKind(kind)) notFound();
  const reader = await pageActor();
  const has = (field: string) => fieldsOf(kind).some((f) => f.field === field);
  const [sites, classes] = await Promise.all(
    (['site', 'class'] as const).map((target) => askForPage('options', { reader, target, text: '' })),
  );
  return {
    account: reader.account,
    mayImport: may(reader, 'edit') && may(reader, 'bulk'),
    sheet: kind,
    words: kind === 'routeRule' ? 'time rules of inbound routes' : KINDS[kind].words,
    listPath: listPathOf(kind),
    asks: { site: has('site'), class: has('class'), teams: false },
    sites: sites!,
    classes: classes!,
    defaultClass: '',
    limits: [],
  };
}

/** Where the objects of a kind stand together. */
function listPathOf(kind: SheetKind): string {
  const place = Object.entries(PLACES).find(([, of]) => of === kind)?.[0];
  return place ? `/places/${place}` : (KINDS[kind].path ?? '/inbound').replace(/\/\{id\}$/, '');
}
