'use client';

import { Box } from '@chakra-ui/react';
import { Component, Suspense, use, useEffect, type ReactNode } from 'react';
import { useRefresh } from './refresh';

/** Draws what is on its way from the server when it is here; until then, and while it has to be asked again, says so. */
export function Later<T>({
  of,
  waiting = <OnItsWay />,
  children,
}: {
  of: Promise<T>;
  waiting?: ReactNode;
  children: (value: T) => ReactNode;
}) {
  return (
    <Mended key={keyOf(of)}>
      <Suspense fallback={waiting}>
        <Here of={of}>{children}</Here>
      </Suspense>
    </Mended>
  );
}

function Here<T>({ of, children }: { of: Promise<T>; children: (value: T) => ReactNode }) {
  return children(use(of));
}

export function OnItsWay() {
  return (
    <Box color="quiet" fontSize="13px" role="status">
      Being worked out …
    </Box>
  );
}

/** A promise that failed is another one after the page was asked again; what holds its place is then made anew. */
const keys = new WeakMap<Promise<unknown>, number>();
const broken = new WeakSet<Promise<unknown>>();
let last = 0;

function keyOf(of: Promise<unknown>): number {
  if (!broken.has(of) && !keys.has(of)) {
    keys.set(of, last);
    of.catch(() => {
      broken.add(of);
      last++;
    });
  }
  return keys.get(of) ?? last;
}

const AGAIN_MS = 2000;

/** Asks the page again when an answer did not come: the engine is starting, or the database was away. */
class Mended extends Component<{ children: ReactNode }, { wrong: boolean }> {
  override state = { wrong: false };
  static getDerivedStateFromError = () => ({ wrong: true });
  override render() {
    return this.state.wrong ? <Again /> : this.props.children;
  }
}

function Again() {
  const refresh = useRefresh();
  useEffect(() => {
    const timer = setInterval(refresh, AGAIN_MS);
    return () => clearInterval(timer);
  }, [refresh]);
  return (
    <Box color="quiet" fontSize="13px" role="status">
      This answer is on its way; the page asks again by itself.
    </Box>
  );
}
