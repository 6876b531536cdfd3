import {
  KINDS,
  OBJECT_KINDS,
  PLAN_FORMAT,
  PLAN_VERSION,
  RowVersions,
  storedPlan,
  type DraftKind,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import { rows, type Reader } from './pool';
import { ORGANISATION, fromSql, quoted, tableOf } from './tables';

export interface LoadedPlan {
  plan: Plan;
  rowVersions: RowVersions;
}

/** The whole draft from its tables; null while there is no organisation yet. Call it inside one snapshot or transaction. */
export async function loadPlan(connection: Reader): Promise<LoadedPlan | null> {
  const [organisationRow] = await rows(connection, 'SELECT * FROM organisation');
  if (!organisationRow) return null;
  const rowVersions = new Map<DraftKind, Map<string, number>>([
    ['organisation', new Map([['organisation', organisationRow.row_version as number]])],
  ]);
  const document: Record<string, unknown> = {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    organisation: Object.fromEntries(ORGANISATION.map((c) => [c.field, fromSql(c, organisationRow)])),
  };
  for (const kind of OBJECT_KINDS) {
    const own = new Map<string, number>();
    rowVersions.set(kind, own);
    const objects = await loadKind(connection, kind, own);
    document[KINDS[kind].list] = objects;
  }
  return { plan: storedPlan(document), rowVersions: new RowVersions(rowVersions) };
}

async function loadKind(connection: Reader, kind: ObjectKind, rowVersions: Map<string, number>): Promise<unknown[]> {
  const map = tableOf(kind);
  const join = map.destination ? ` JOIN destination d ON d.id = t.id` : '';
  const shared = map.shared.map((c) => `, d.${quoted(c.column)}`).join('');
  const found = await rows(connection, `SELECT t.*${shared} FROM ${quoted(map.table)} t${join} ORDER BY t.id`);
  const lists = new Map<string, Map<string, string[]>>();
  for (const list of map.lists) {
    const byOwner = new Map<string, string[]>();
    for (const r of await rows(connection, `SELECT owner, target FROM ${list.table} ORDER BY owner, position`)) {
      const targets = byOwner.get(r.owner as string) ?? [];
      byOwner.set(r.owner as string, targets);
      targets.push(r.target as string);
    }
    lists.set(list.field, byOwner);
  }
  return found.map((row) => {
    const id = row.id as string;
    rowVersions.set(id, row.row_version as number);
    const object: Record<string, unknown> = { id };
    for (const c of [...map.own, ...map.shared]) object[c.field] = fromSql(c, row);
    for (const [field, byOwner] of lists) object[field] = byOwner.get(id) ?? [];
    return object;
  });
}
