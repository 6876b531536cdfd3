import { z } from 'zod';
import { grantSchema } from '@/contract/rights';
import { rows, type Reader } from '../db/pool';
import { PERSON_ROLE, READY_ROLES, type Role } from './rights';

export type RoleRow = { id: string; name: string; grants: unknown };

export const fromRow = (r: RoleRow): Role => ({
  id: r.id,
  name: r.name,
  grants: z.array(grantSchema).parse(typeof r.grants === 'string' ? JSON.parse(r.grants) : r.grants),
});

/** A role by id; null when there is none (any more). */
export async function roleById(c: Reader, id: string): Promise<Role | null> {
  const ready = [...READY_ROLES, PERSON_ROLE].find((r) => r.id === id);
  if (ready) return ready;
  const [found] = await rows<RoleRow>(c, 'SELECT id, name, grants FROM role WHERE id = ?', [id]);
  return found ? fromRow(found) : null;
}
