import { useEffect, useRef, type RefObject } from 'react';

/**
 * A click into a field that shows what is chosen marks all of it, so that what is typed next takes its place. Whoever sets the
 * caret, by keys or by a second click, types there instead.
 */
export function useTypeOver(box: RefObject<HTMLInputElement | null>): void {
  const whole = useRef(false);
  useEffect(() => {
    const input = box.current!;
    const mark = () => {
      if (whole.current && document.activeElement === input) input.select();
    };
    const listeners: Partial<Record<keyof HTMLElementEventMap, (e: Event) => void>> = {
      mousedown: (e) => {
        whole.current = document.activeElement !== input || (e as MouseEvent).detail > 2;
        // The list sets the caret in the next frame, once it is open.
        if (whole.current) requestAnimationFrame(() => requestAnimationFrame(mark));
      },
      mouseup: () => {
        const { selectionStart, selectionEnd, value } = input;
        if (selectionStart !== selectionEnd && selectionEnd! - selectionStart! < value.length) whole.current = false;
      },
      keydown: (e) => {
        if (/^(Arrow(Left|Right)|Home|End)$/.test((e as KeyboardEvent).key)) whole.current = false;
      },
      beforeinput: () => {
        mark();
        whole.current = false;
      },
      blur: () => {
        whole.current = false;
      },
    };
    for (const [type, hears] of Object.entries(listeners)) input.addEventListener(type, hears);
    return () => {
      for (const [type, hears] of Object.entries(listeners)) input.removeEventListener(type, hears);
    };
  }, [box]);
}
