'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { splitAsk } from '@/core/ask/split';
import { call } from '@/workbench/api';
import { Glyph } from '@/ui/glyph';
import { isTyping } from '@/ui/ledger-state';
import { useSettled } from '@/ui/settled';
import { useWriting } from '@/ui/time';
import { useAsked } from '@/workbench/use-asked';
import { tracePath } from '@/workbench/paths';
import { BothLine, InLine, type Answer } from './ask-answers';
import { Pickers } from './ask-pickers';

const PAUSE_MS = 25;

/** The line on this page, for those that lead to it. */
export const askLine = () => document.querySelector<HTMLInputElement>('[data-testid=ask-line]');

/** One field that finds and asks, and answers while somebody types. */
export function AskLine({ revision }: { revision: number }) {
  const router = useRouter();
  const write = useWriting();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
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

  const go = (path: string | null) => {
    if (!path) return;
    setOpen(false);
    setPickers(false);
    input.current?.blur();
    router.push(path);
  };
  const found = answer?.type === 'found' ? answer.found : [];
  const enter = async () => {
    const parts = splitAsk(text);
    if (parts) return go(tracePath(parts.from, parts.dial, parts.when || 'now'));
    if (wanted === text.trim() && !asked.waiting) return go(found[at]?.path ?? null);
    // Typed faster than it is answered: the answer to what stands there decides.
    const got = await call('ask', { query: { text: text.trim() } });
    go(got.ok && got.value.type === 'found' ? (got.value.found[0]?.path ?? null) : null);
  };
  const complete = () => {
    const choice = found[at];
    if (choice?.kind === 'extension') setText(`${choice.label.split(' ')[0]} > `);
  };

  return (
    <Box flex="1" position="relative" minW={0}>
      <Flex
        align="center"
        h="36px"
        border="1px solid"
        borderColor="plum"
        rounded="4px"
        bg="raised"
        px="10px"
        gap="10px"
        _focusWithin={{ outline: '2px solid', outlineColor: 'plum', outlineOffset: '1px' }}
      >
        <chakra.input
          ref={input}
          // What is typed is never covered: the answer takes what is left beside it.
          style={{ flex: '1 0 auto', width: `${Math.max(24, text.length + 2)}ch`, maxWidth: 'calc(100% - 24px)' }}
          bg="transparent"
          outline="none"
          fontFamily="mono"
          fontSize="14px"
          placeholder="Find a name, a number, a phone; or ask: who > digits @ when"
          aria-label="Ask line"
          data-testid="ask-line"
          role="combobox"
          aria-expanded={open}
          aria-autocomplete="list"
          aria-controls={open && answer ? 'ask-answers' : undefined}
          aria-activedescendant={open && found[at] ? `ask-answer-${at}` : undefined}
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
            setOpen(true);
          }}
          onFocus={() => setOpen(true)}
          onBlur={(e) => {
            if (!e.currentTarget.parentElement?.parentElement?.contains(e.relatedTarget as Node)) setOpen(false);
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') void enter();
            else if (e.key === 'Escape') (e.target as HTMLInputElement).blur();
            else if (e.key === 'ArrowDown') setAt(Math.min(at + 1, found.length - 1));
            else if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0));
            else if (e.key === 'Tab' && found[at]?.kind === 'extension' && !e.shiftKey) complete();
            else return;
            e.preventDefault();
          }}
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
          color="quiet"
          fontSize="13px"
          onClick={() => setPickers(!pickers)}
        >
          ▾
        </chakra.button>
      </Flex>
      {pickers ? <Pickers onAsk={go} onClose={() => setPickers(false)} /> : null}
      {open && !pickers && answer ? (
        <Box
          id="ask-answers"
          role="listbox"
          position="absolute"
          top="40px"
          left={0}
          right={0}
          bg="raised"
          border="1px solid"
          borderColor="fieldLine"
          rounded="4px"
          zIndex={25}
          boxShadow="lg"
          py="4px"
          maxH="70vh"
          overflowY="auto"
        >
          {answer.type === 'answer' ? (
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
          ) : answer.type === 'unclear' ? (
            <Box px="12px" py="6px" fontSize="13px">
              {answer.sentence}
            </Box>
          ) : found.length === 0 ? (
            <Box px="12px" py="6px" fontSize="13px" color="quiet">
              Nothing is called that. Ask with: 2104 &gt; 9 01632 960150 @ fri 17:10
            </Box>
          ) : (
            found.map((f, i) => (
              <Flex
                key={f.id}
                id={`ask-answer-${i}`}
                role="option"
                aria-selected={i === at}
                align="center"
                gap="10px"
                px="12px"
                h="30px"
                bg={i === at ? 'plumTint' : undefined}
                cursor="pointer"
                onMouseDown={(e) => {
                  e.preventDefault();
                  go(f.path);
                }}
                onMouseEnter={() => setAt(i)}
              >
                <Glyph kind={f.kind} />
                <Box minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
                  {f.label}
                </Box>
                <Box color="quiet" fontSize="13px" whiteSpace="nowrap">
                  {f.detail}
                </Box>
                <Box color="quiet" fontSize="12px" ml="auto" whiteSpace="nowrap">
                  {f.word}
                  {f.kind === 'extension' && i === at ? ' · Tab asks as this phone' : ''}
                </Box>
              </Flex>
            ))
          )}
        </Box>
      ) : null}
    </Box>
  );
}
