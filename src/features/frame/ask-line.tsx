'use client';

import { Box, Combobox, Portal, chakra, createListCollection } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { Suspense, lazy, useEffect, useMemo, useRef, useState, type KeyboardEvent as KeyboardEventOf } from 'react';
import { splitAsk } from '@/core/ask/split';
import { call } from '@/workbench/api';
import { Glyph } from '@/ui/glyph';
import { isTyping } from '@/ui/ledger-state';
import { useSettled } from '@/ui/settled';
import { useWriting } from '@/ui/time';
import { useAsked } from '@/workbench/use-asked';
import { tracePath } from '@/workbench/paths';
import { BothLine, InLine, type Answer } from './ask-answers';

/** The three fields are seldom opened: they come when they are. */
const Pickers = lazy(() => import('./ask-pickers'));

const PAUSE_MS = 25;
const NO_VALUE: string[] = [];

type Found = Extract<Answer, { type: 'found' }>['found'][number];
const NONE: Found[] = [];

/** The line on this page, for those that lead to it. */
export const askLine = () => document.querySelector<HTMLInputElement>('[data-testid=ask-line]');

/** One field that finds and asks, and answers while somebody types. */
export function AskLine({ revision }: { revision: number }) {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState<string | null>(null);
  const [pickers, setPickers] = useState(false);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== '/' || e.ctrlKey || e.metaKey || isTyping(e.target)) return;
      e.preventDefault();
      input.current?.focus();
      input.current?.select();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const wanted = useSettled(text.trim(), PAUSE_MS);
  const asked = useAsked('ask', wanted === '' ? null : { query: { text: wanted } }, {
    keep: true,
    fresh: true,
    also: revision,
  });
  const answer: Answer | null = asked.wrong ? { type: 'unclear', sentence: asked.wrong, found: [] } : asked.value;
  const found = answer?.type === 'found' ? answer.found : NONE;
  const collection = useMemo(
    () => createListCollection({ items: found, itemToString: (f) => f.label, itemToValue: (f) => f.id }),
    [found],
  );
  // The first that was found is meant unless another one is chosen.
  const marked = found.find((f) => f.id === at) ?? found[0] ?? null;

  const put = (next: string) => {
    setText(next);
    setAt(null);
  };
  const shown = open && !pickers && text !== '';
  const leaving = useRef(false);
  useEffect(() => {
    if (shown || !leaving.current) return;
    leaving.current = false;
    // A list that closes gives the focus back to its field, in the next frame.
    requestAnimationFrame(() => requestAnimationFrame(() => input.current?.blur()));
  }, [shown]);
  const leave = () => {
    leaving.current = shown;
    setOpen(false);
    if (!shown) input.current?.blur();
  };
  const go = (path: string | null) => {
    if (!path) return;
    leave();
    setPickers(false);
    router.push(path);
  };
  const enter = async () => {
    const parts = splitAsk(text);
    if (parts) return go(tracePath(parts.from, parts.dial, parts.when || 'now'));
    if (wanted === text.trim() && !asked.waiting) return go(marked?.path ?? null);
    // Typed faster than it is answered: the answer to what stands there decides.
    const got = await call('ask', { query: { text: text.trim() } });
    go(got.ok && got.value.type === 'found' ? (got.value.found[0]?.path ?? null) : null);
  };
  const onKey = (e: KeyboardEventOf) => {
    // Home and End move within the text, not within the list.
    if (e.key === 'Home' || e.key === 'End') return e.stopPropagation();
    if (e.key === 'Enter') void enter();
    else if (e.key === 'Escape') leave();
    else if (e.key === 'Tab' && !e.shiftKey && open && marked?.kind === 'extension')
      put(`${marked.label.split(' ')[0]} > `);
    else return;
    e.preventDefault();
  };

  return (
    <Box flex="1" position="relative" minW={0}>
      <Combobox.Root
        ids={{ content: 'ask-answers' }}
        composite={false}
        collection={collection}
        value={NO_VALUE}
        inputValue={text}
        onInputValueChange={(d) => d.reason === 'input-change' && put(d.inputValue)}
        open={shown}
        onOpenChange={(d) => setOpen(d.open)}
        highlightedValue={marked?.id ?? null}
        onHighlightChange={(d) => setAt(d.highlightedValue)}
        onSelect={(d) => go(found.find((f) => f.id === d.itemValue)?.path ?? null)}
        // What is typed stays: it is a question, not the name of what is chosen.
        selectionBehavior="preserve"
        inputBehavior="autohighlight"
        allowCustomValue
        positioning={{ sameWidth: true, gutter: 4 }}
        lazyMount
        unmountOnExit
      >
        <Combobox.Control
          display="flex"
          alignItems="center"
          h="36px"
          border="1px solid"
          borderColor="plum"
          rounded="4px"
          bg="raised"
          px="10px"
          gap="10px"
          _focusWithin={{ outline: '2px solid', outlineColor: 'plum', outlineOffset: '1px' }}
        >
          <Combobox.Input
            ref={(e) => {
              input.current = e;
              // A list that opens puts the caret to the end of its field: here it stays where somebody types.
              if (e) e.setSelectionRange = () => {};
            }}
            onKeyDownCapture={onKey}
            onFocus={() => setOpen(true)}
            // What is typed is never covered: the answer takes what is left beside it.
            style={{ flex: '1 0 auto', width: `${Math.max(24, text.length + 2)}ch`, maxWidth: 'calc(100% - 24px)' }}
            h="34px"
            minH="34px"
            p="0"
            border="0"
            bg="transparent"
            outline="none"
            fontFamily="mono"
            fontSize="14px"
            placeholder="Find a name, a number, a phone; or ask: who > digits @ when"
            aria-label="Ask line"
            data-testid="ask-line"
          />
          <Box hideBelow="md" overflow="hidden" flex="0 1 auto" minW={0} data-testid="ask-answer" aria-live="polite">
            {answer?.type === 'answer' ? (
              <InLine answer={answer} />
            ) : answer?.type === 'unclear' ? (
              <Box color="quiet" fontSize="13px" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
                {answer.sentence}
              </Box>
            ) : null}
          </Box>
          <chakra.button
            type="button"
            aria-label="Ask with three fields"
            title="Ask with three fields"
            aria-expanded={pickers}
            color="quiet"
            flexShrink={0}
            onClick={() => setPickers(!pickers)}
          >
            <ChevronDown size={16} aria-hidden />
          </chakra.button>
        </Combobox.Control>
        <Portal>
          <Combobox.Positioner>
            {answer ? (
              <Combobox.Content
                aria-label="What the line finds"
                aria-labelledby={undefined}
                bg="raised"
                border="1px solid"
                borderColor="fieldLine"
                rounded="4px"
                shadow="lg"
                py="4px"
                px="0"
                maxH="70vh"
                overflowY="auto"
                fontSize="14px"
              >
                <Combobox.Empty p="0" textAlign="start" fontSize="13px" color="ink">
                  <Said answer={answer} />
                </Combobox.Empty>
                <Combobox.List>
                  {found.map((f) => (
                    <FoundLine key={f.id} found={f} marked={f === marked} />
                  ))}
                </Combobox.List>
              </Combobox.Content>
            ) : null}
          </Combobox.Positioner>
        </Portal>
      </Combobox.Root>
      {pickers ? (
        <Suspense fallback={null}>
          <Pickers onAsk={go} onClose={() => setPickers(false)} />
        </Suspense>
      ) : null}
    </Box>
  );
}

/** One thing that was found: its glyph, its name, what tells it apart, what it is. */
function FoundLine({ found: f, marked }: { found: Found; marked: boolean }) {
  return (
    <Combobox.Item
      item={f}
      gap="10px"
      px="12px"
      py="0"
      h="30px"
      rounded="0"
      justifyContent="flex-start"
      _highlighted={{ bg: 'plumTint' }}
    >
      <Glyph kind={f.kind} />
      <Combobox.ItemText flex="0 1 auto" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {f.label}
      </Combobox.ItemText>
      <Box color="quiet" fontSize="13px" whiteSpace="nowrap">
        {f.detail}
      </Box>
      <Box color="quiet" fontSize="12px" ml="auto" whiteSpace="nowrap">
        {f.word}
        {f.kind === 'extension' && marked ? ' · Tab asks as this phone' : ''}
      </Box>
    </Combobox.Item>
  );
}

/** What is said beside what was found: the answer to a question, why there is none, or that nothing is called so. */
function Said({ answer }: { answer: Answer }) {
  const write = useWriting();
  if (answer.type === 'answer')
    return (
      <Box px="12px" py="6px" fontSize="13px">
        {answer.same ? (
          <BothLine word="live and draft" short={answer.draft} />
        ) : (
          <>
            <BothLine word="live" short={answer.live} />
            <BothLine word="draft" short={answer.draft} draft />
          </>
        )}
        <Box color="quiet" mt="4px">
          {write(answer.at, { zone: answer.zone, weekday: true })}, {answer.zone} · Enter opens the trace
        </Box>
      </Box>
    );
  if (answer.type === 'unclear')
    return (
      <Box px="12px" py="6px" fontSize="13px">
        {answer.sentence}
      </Box>
    );
  return answer.found.length > 0 ? null : (
    <Box px="12px" py="6px" fontSize="13px" color="quiet">
      Nothing is called that. Ask with: 2104 &gt; 9 01632 960150 @ fri 17:10
    </Box>
  );
}
