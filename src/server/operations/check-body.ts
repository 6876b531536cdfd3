import { contract, type OperationName } from '@/contract';
import type { Edit } from '@/contract/plan';
import type { OneError } from '@/contract/shared';
import { inputErrors, readObject, titleAt } from '@/core/plan';
import { Refused } from '../access/rights';

const isOperation = (name: string): name is OperationName => Object.hasOwn(contract, name);

/** What is wrong with a body, by the schema of the operation that it is for; whole objects of edits by theirs. */
export function bodyErrors(operation: string, body: unknown): OneError[] {
  const facts = isOperation(operation) ? contract[operation] : undefined;
  if (!facts || !('body' in facts))
    throw new Refused(404, 'no-such-operation', `No operation called ${operation} takes a body.`, 'operation');
  const schema = facts.body;
  const result = schema.safeParse(body);
  if (!result.success) return inputErrors(result.error, '', (path) => titleAt(schema, path));
  if (operation !== 'edit') return [];
  return (result.data as { edits: Edit[] }).edits.flatMap((e, i) => {
    if (!('value' in e) || e.value === null) return [];
    const read = readObject(e.kind, e.value, `edits.${i}.value`);
    return read.ok ? [] : read.errors;
  });
}
