'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { splitAsk } from '@/core/ask/split';
import { call } from '@/workbench/api';
import { Glyph } from '@/ui/glyph';
import { isTyping } from '@/ui/ledger-state';
import { useKinds } from '@/ui/kinds';
import { tracePath } from '@/workbench/paths';
import { BothLine, InLine, type Answer } from './ask-answers';
import { Pickers } from './ask-pickers';

const PAUSE_MS = 25;

/** One field that finds and asks, and answers while somebody types. */
export function AskLine() {
  const router = useRouter();
  const { pathOf } = useKinds();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [answer, setAnswer] = useState<Answer | null>(null);
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

  useEffect(() => {
    const stop = new AbortController();
    const wanted = text.trim();
    const timer = setTimeout(async () => {
      if (wanted === '') {
        setAnswer(null);
        return;
      }
      const got = await call('ask', { query: { text: wanted } }, stop.signal);
      if (stop.signal.aborted) return;
      setAnswer(got.ok ? got.value : { type: 'unclear', sentence: got.errors[0]!.sentence, found: [] });
      setAt(0);
    }, PAUSE_MS);
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [text]);

  const go = (path: string | null) => {
    if (!path) return;
    setOpen(false);
    setPickers(false);
    input.current?.blur();
    router.push(path);
  };
  const found = answer?.type === 'found' ? answer.found : [];
  const enter = () => {
    const parts = splitAsk(text);
    if (parts) go(tracePath(parts.from, parts.dial, parts.when || 'now'));
    else if (found[at]) go(pathOf(found[at].kind, found[at].id));
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
          flex="1"
          minW={0}
          bg="transparent"
          outline="none"
          fontFamily="mono"
          fontSize="14px"
          placeholder="Find a name, a number, a phone; or ask: who > digits @ when"
          aria-label="Ask line"
          data-testid="ask-line"
          role="combobox"
          aria-expanded={open}
          aria-controls="ask-answers"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setOpen(true);
          }}
          onFocus={() => setOpen(true)}
          onBlur={(e) => {
            if (!e.currentTarget.parentElement?.parentElement?.contains(e.relatedTarget as Node)) setOpen(false);
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') enter();
            else if (e.key === 'Escape') (e.target as HTMLInputElement).blur();
            else if (e.key === 'ArrowDown') setAt(Math.min(at + 1, found.length - 1));
            else if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0));
            else if (e.key === 'Tab' && found[at]?.kind === 'extension' && !e.shiftKey) complete();
            else return;
            e.preventDefault();
          }}
        />
        <Box hideBelow="md" overflow="hidden" maxW="60%" data-testid="ask-answer" aria-live="polite">
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
                {new Intl.DateTimeFormat('en-GB', {
                  timeZone: answer.zone,
                  weekday: 'long',
                  day: 'numeric',
                  month: 'long',
                  hour: '2-digit',
                  minute: '2-digit',
                }).format(new Date(answer.at))}
                , {answer.zone} · Enter opens the trace
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
                  go(pathOf(f.kind, f.id));
                }}
                onMouseEnter={() => setAt(i)}
              >
                <Glyph kind={f.kind} />
                <Box>{f.label}</Box>
                <Box color="quiet" fontSize="12px" ml="auto">
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
