'use client';

import { Box, Flex } from '@chakra-ui/react';
import { X } from 'lucide-react';
import type { Situation, Trace } from '@/core/routing';
import { ActLink } from '@/ui/controls';

/** What a call is asked with besides what holds. */
export interface Beside {
  holds: Pick<Situation, 'busy' | 'away' | 'off' | 'doNotDisturb' | 'presence' | 'trunks' | 'keys'>;
  names: Readonly<Record<string, string>>;
}

const STATES = [
  { field: 'busy', words: 'busy' },
  { field: 'away', words: 'away' },
  { field: 'off', words: 'switched off' },
  { field: 'doNotDisturb', words: 'not to be disturbed' },
] as const;

const KEYS = [...'1234567890*#'];
/** Seconds after the call came somewhere at which a key is pressed there. */
const PRESSED_AFTER = 1;

/** What stands in the head of the page: whether anything besides the plan is assumed. */
export const asideFrom = ({ holds }: Beside): string =>
  Object.keys(holds).length === 0
    ? 'everyone free, trunks up'
    : 'with what is assumed below, else everyone free, trunks up';

/** What is assumed of the call, each to be taken back, and what could be assumed of where it came to. The address keeps all of it. */
export function SituationBar({
  pathWith,
  beside: { holds, names },
  trace,
}: {
  /** the page of the same call where other things hold */
  pathWith: (holds: Beside['holds']) => string;
  beside: Beside;
  trace: Trace;
}) {
  const to = (next: Beside['holds']) => pathWith(filled(next));
  return (
    <Box as="section" aria-label="Situation" mt="10px" data-testid="situation">
      <Flex gap="6px" wrap="wrap" align="center">
        {STATES.flatMap(({ field, words }) =>
          (holds[field] ?? []).map((id) => (
            <Assumed
              key={`${field} ${id}`}
              words={`${names[id] ?? id} is ${words}`}
              href={to({ ...holds, [field]: holds[field]!.filter((x) => x !== id) })}
            />
          )),
        )}
        {Object.entries(holds.presence ?? {}).map(([id, state]) => (
          <Assumed
            key={`presence ${id}`}
            words={`${names[id] ?? id} is “${names[state] ?? state}”`}
            href={to({ ...holds, presence: without(holds.presence!, id) })}
          />
        ))}
        {(holds.trunks ?? []).map((t) => (
          <Assumed
            key={t.id}
            words={`${names[t.id] ?? t.id} is down`}
            href={to({ ...holds, trunks: holds.trunks!.filter((x) => x.id !== t.id) })}
          />
        ))}
        {holds.keys?.length ? (
          <Assumed
            words={`keys ${holds.keys.map((k) => k.key).join(' ')} are pressed`}
            href={to({ ...holds, keys: [] })}
          />
        ) : null}
      </Flex>
      <Choices holds={holds} trace={trace} to={to} />
    </Box>
  );
}

/** A situation without its empty parts. */
const filled = (holds: Beside['holds']): Beside['holds'] =>
  Object.fromEntries(Object.entries(holds).filter(([, of]) => Object.keys(of).length > 0));

const without = (presence: Readonly<Record<string, string>>, id: string) =>
  Object.fromEntries(Object.entries(presence).filter(([of]) => of !== id));

const Assumed = ({ words, href }: { words: string; href: string }) => (
  <ActLink href={href} aria-label={`No longer assume that ${words}`} h="26px" bg="plumTint">
    {words} <X size={13} style={{ marginLeft: 6 }} />
  </ActLink>
);

/** What could be assumed of the place where the call came to. */
function Choices({
  holds,
  trace,
  to,
}: {
  holds: Beside['holds'];
  trace: Trace;
  to: (next: Beside['holds']) => string;
}) {
  const { lands } = trace;
  if (!lands?.id) return null;
  const { id, kind, label } = lands;
  if (kind === 'extension')
    return (
      <Row title={`If ${label} were`}>
        {STATES.filter(({ field }) => !holds[field]?.includes(id)).map(({ field, words }) => (
          <ActLink key={field} href={to({ ...holds, [field]: [...(holds[field] ?? []), id] })} h="26px">
            {words}
          </ActLink>
        ))}
      </Row>
    );
  if (kind === 'outside' && trace.trunk !== null)
    return (
      <Row title="If the trunk were">
        <ActLink href={to({ ...holds, trunks: [...(holds.trunks ?? []), { id: trace.trunk, up: false }] })} h="26px">
          down
        </ActLink>
      </Row>
    );
  if (kind !== 'attendant' && kind !== 'directory') return null;
  const next = Math.max(trace.secondsWaited, holds.keys?.at(-1)?.atSeconds ?? 0) + PRESSED_AFTER;
  return (
    <Row title="If the caller pressed">
      {KEYS.map((key) => (
        <ActLink
          key={key}
          href={to({ ...holds, keys: [...(holds.keys ?? []), { atSeconds: next, key }] })}
          h="26px"
          aria-label={`Press ${key}`}
        >
          {key}
        </ActLink>
      ))}
    </Row>
  );
}

const Row = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <Flex gap="6px" wrap="wrap" align="center" mt="6px">
    <Box color="quiet" fontSize="13px" mr="4px">
      {title}
    </Box>
    {children}
  </Flex>
);
