'use client';

import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { useServerInsertedHTML } from 'next/navigation';
import { useState, type ReactNode } from 'react';

/**
 * Rules of style that the server made go to the head, before the part of the page that needs them, also in parts that are
 * streamed later. Left among the elements, as they are otherwise, they are something that the browser does not find again in
 * what it draws, and it throws the part away.
 */
export function Styles({ children }: { children: ReactNode }) {
  const [{ cache, take }] = useState(() => {
    const made = createCache({ key: 'css' });
    made.compat = true;
    const insert = made.insert;
    let fresh: string[] = [];
    made.insert = (...args) => {
      const { name } = args[1];
      if (made.inserted[name] === undefined) fresh.push(name);
      return insert(...args);
    };
    return {
      cache: made,
      take: () => {
        const taken = fresh;
        fresh = [];
        return taken;
      },
    };
  });
  useServerInsertedHTML(() => {
    const names = take();
    if (names.length === 0) return null;
    const css = names.map((name) => cache.inserted[name]).filter((rule) => typeof rule === 'string');
    return <style data-emotion={`css ${names.join(' ')}`} dangerouslySetInnerHTML={{ __html: css.join('') }} />;
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}
