'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useKinds } from '@/ui/kinds';
import { isTyping } from '@/ui/ledger-state';
import { say } from '@/ui/toasts';
import { call } from '@/workbench/api';
import { useAsked } from '@/workbench/use-asked';

/** Problems that a walk goes through at most. */
const MOST_WALKED = 300;

/** How many errors and doubts there are in the draft, as far as it is known by now. */
export function useProblemCount(): number | undefined {
  const { value } = useAsked('problems', { query: { most: 1 } as never }, { keep: true });
  return value?.types.reduce((n, t) => n + (t.severity === 'note' ? 0 : t.count), 0);
}

/** The key `.`: from the object of one problem to that of the next, saying what is wrong there. */
export function ProblemWalk(): null {
  const router = useRouter();
  const path = usePathname();
  const { pathOf } = useKinds();
  useEffect(() => {
    const next = async () => {
      const found = await call('problems', { query: { most: MOST_WALKED } as never });
      if (!found.ok) return say(found.errors[0]!.sentence);
      const stops = new Map<string, string>();
      for (const p of found.value.problems) {
        const to = pathOf(p.object.kind, p.object.id);
        if (to && !stops.has(to)) stops.set(to, p.sentence);
      }
      const paths = [...stops.keys()];
      if (paths.length === 0) return say('Nothing wrong or doubtful is left in the draft.');
      const at = (paths.indexOf(path) + 1) % paths.length;
      router.push(paths[at]!);
      say(`${at + 1} of ${paths.length}: ${stops.get(paths[at]!)!}`);
    };
    const onKey = (e: KeyboardEvent) => {
      if (e.key === '.' && !isTyping(e.target) && !e.ctrlKey && !e.metaKey && !e.altKey) void next();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router, path, pathOf]);
  return null;
}
