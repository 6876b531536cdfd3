import { useEffect, type RefObject } from 'react';

/**
 * What has the focus in a scrolled `area` stays where it stands on the screen while the `content` above it grows or shrinks, such
 * as a drawing that follows each edit: the hand that is on its way to it, or to what is beside it, still meets it. The browser's
 * own anchoring does the same only once the area has been scrolled. It holds from the first key or press in the area on.
 */
export function useSteady(area: RefObject<HTMLElement | null>, content: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const scrolled = area.current!;
    let held: { what: Element; top: number } | null = null;
    let begun = false;
    const look = () => {
      const what = document.activeElement;
      held = null;
      if (!begun || !what || !content.current!.contains(what)) return;
      const { top, bottom } = what.getBoundingClientRect();
      const seen = scrolled.getBoundingClientRect();
      if (bottom > seen.top && top < seen.bottom) held = { what, top };
    };
    const keep = () => {
      if (held && held.what === document.activeElement) {
        const moved = held.what.getBoundingClientRect().top - held.top;
        if (Math.abs(moved) >= 1) scrolled.scrollTop += moved;
      }
      look();
    };
    const begin = () => {
      begun = true;
      look();
    };
    const sizes = new ResizeObserver(keep);
    sizes.observe(content.current!);
    const hears: readonly [string, () => void][] = [
      ['keydown', begin],
      ['pointerdown', begin],
      ['focusin', look],
      ['scroll', look],
    ];
    for (const [type, act] of hears) scrolled.addEventListener(type, act);
    return () => {
      sizes.disconnect();
      for (const [type, act] of hears) scrolled.removeEventListener(type, act);
    };
  }, [area, content]);
}
