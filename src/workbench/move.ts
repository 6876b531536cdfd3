import { call, type ApiResult } from './api';

interface Movable {
  id: string;
  rowVersion: number;
  value: { position: number };
}

/** Moves one rule of an ordered list a place up or down: both change places in one edit. */
export function moveRule(
  kind: 'rung' | 'inboundRoute',
  list: readonly Movable[],
  index: number,
  by: -1 | 1,
): Promise<ApiResult<unknown>> {
  const [a, b] = [list[index]!, list[index + by]!];
  const put = (m: Movable, position: number) => ({
    kind,
    id: m.id,
    rowVersion: m.rowVersion,
    value: { ...m.value, position },
  });
  const same = a.value.position === b.value.position;
  return call('edit', {
    body: { edits: [put(a, same ? b.value.position + by : b.value.position), put(b, a.value.position)] },
  });
}
