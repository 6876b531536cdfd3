'use client';

import { useEffect } from 'react';

/*
 * A page is seen before its code has come. What is typed, ticked and sent in that time would be lost, or sent as an address
 * with everything typed in it: it is taken down by a few lines within the page, and done again once its field works.
 */

type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

interface Early {
  /** what was typed or ticked, by field */
  fields: Map<Field, string | boolean>;
  /** what was sent */
  form: HTMLFormElement | null;
  /** told of anything new */
  told: (() => void) | null;
  /** told of a field that works by now and is about to be typed into again */
  next: ((field: Field) => void) | null;
  /** an event that wakes a part of the page is under way; nobody typed */
  waking: boolean;
}

declare global {
  interface Window {
    polydromeEarly?: Early;
  }
}

const works = (e: Element) => Object.keys(e).some((k) => k.startsWith('__reactProps$'));

/** The field as it stands in the page now: it may have been drawn anew. */
const standing = <E extends Element>(e: E): E | null =>
  e.isConnected ? e : (e.id && (document.getElementById(e.id) as E | null)) || null;

const tell = (field: Element, event: 'focusin' | 'focusout') =>
  field.dispatchEvent(new FocusEvent(event, { bubbles: true }));

/** A part of the page that is not taken over yet is, at once, when an event of this kind comes to it; it changes nothing. */
function wake(early: Early, field: Field): void {
  early.waking = true;
  field.dispatchEvent(new Event('input', { bubbles: true }));
  early.waking = false;
}

/** Types or ticks again, and leaves the field again where it was left. */
function again(field: Field, typed: string | boolean): void {
  const left = document.activeElement !== field;
  if (left) tell(field, 'focusin');
  put(field, typed);
  if (left) setTimeout(() => document.activeElement !== field && tell(field, 'focusout'), 0);
}

/** Puts a text back with its caret where it stood, or at its end. */
function keepCaret(field: Field, typed: string | boolean): void {
  const at = field.value === typed && !(field instanceof HTMLSelectElement) ? field.selectionStart : null;
  again(field, typed);
  if (at !== null) (field as HTMLInputElement).setSelectionRange(at, at);
}

function put(field: Field, typed: string | boolean): void {
  if (typeof typed === 'boolean') {
    (field as HTMLInputElement).checked = !typed;
    field.click();
    return;
  }
  if (!(field instanceof HTMLSelectElement)) {
    if (field.defaultValue === typed) return;
    // The field is to notice a change, whatever it takes for its value now.
    field.value = field.defaultValue;
  }
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')!.set!.call(field, typed);
  field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
}

/** Does again what was typed, ticked and sent before the page worked. Stands behind everything else of the page. */
export function EarlyTyping() {
  useEffect(() => {
    const early = window.polydromeEarly;
    if (!early) return;
    // A list hears of the focus that was there before it.
    const focused = document.activeElement;
    if (focused && focused !== document.body && works(focused)) tell(focused, 'focusin');
    let frame = 0;
    const look = () => {
      for (const [noted, typed] of [...early.fields]) {
        const field = standing(noted);
        if (field) wake(early, field);
        if (field && !works(field)) continue;
        early.fields.delete(noted);
        if (field) again(field, typed);
      }
      const form = early.form && standing(early.form);
      if (early.form && early.fields.size === 0 && (!form || works(form))) {
        early.form = null;
        // What was typed is in the form by then.
        if (form) setTimeout(() => form.requestSubmit(), 0);
      }
      frame = early.fields.size > 0 || early.form ? requestAnimationFrame(look) : 0;
    };
    early.told = () => {
      if (frame === 0) frame = requestAnimationFrame(look);
    };
    early.next = (field) => {
      const typed = early.fields.get(field);
      early.fields.delete(field);
      if (typed !== undefined) keepCaret(field, typed);
    };
    frame = requestAnimationFrame(look);
    return () => {
      early.told = early.next = null;
      cancelAnimationFrame(frame);
    };
  }, []);
  return null;
}
