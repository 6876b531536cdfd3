'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { PanelRight } from 'lucide-react';
import { createContext, useContext, useMemo, useRef, useState, type ReactNode } from 'react';
import { PartTitle } from './controls';
import { useSteady } from './steady';

/** The note of the field that has the focus: what it is, one example, what it does to a caller. */
export interface FocusNote {
  title: string;
  text: string;
}

const NoteContext = createContext<(note: FocusNote | null) => void>(() => {});

/** Handlers that show a field's note in the pane while the field has the focus. */
export function useFocusNote(title: string | undefined, text: string | undefined) {
  const set = useContext(NoteContext);
  return useMemo(() => ({ onFocus: () => set(title && text ? { title, text } : null) }), [set, title, text]);
}

/** Pixels from which on there is room for the pane of consequences beside the work area; below, it folds away until it is asked for. */
const WIDE = 1100;

/** A work area with its title and acts, and the pane of consequences beside it. */
export function Workspace({
  title,
  count,
  lead,
  acts,
  pane,
  children,
}: {
  title: string;
  count?: ReactNode;
  lead?: ReactNode;
  acts?: ReactNode;
  pane?: ReactNode;
  children: ReactNode;
}) {
  const [note, setNote] = useState<FocusNote | null>(null);
  const [open, setOpen] = useState<boolean | null>(null);
  const area = useRef<HTMLElement>(null);
  const content = useRef<HTMLDivElement>(null);
  useSteady(area, content);
  return (
    <NoteContext.Provider value={setNote}>
      <title>{`${title} · Polydrome`}</title>
      <Flex minH="0" flex="1" position="relative">
        <chakra.main
          ref={area}
          flex="1"
          minW={0}
          px={{ base: '12px', md: '22px' }}
          pt="18px"
          pb="32px"
          overflowY="auto"
          // What stands by itself within it, such as a hidden file input, scrolls with it.
          position="relative"
        >
          <div ref={content}>
            <Flex align="flex-start" gap="8px" mb={lead ? '2px' : '12px'}>
              <Flex align="center" gap="8px" wrap="wrap" flex="1" minW={0} minH="30px">
                <chakra.h1 fontSize="21px" lineHeight="28px" fontWeight={700} minW={0} overflowWrap="anywhere">
                  {title}
                </chakra.h1>
                {count ? (
                  <Box color="quiet" fontSize="13px" pt="3px">
                    {count}
                  </Box>
                ) : null}
                <Flex gap="8px" ml="auto" wrap="wrap">
                  {acts}
                </Flex>
              </Flex>
              {pane ? (
                <chakra.button
                  type="button"
                  aria-label="Show or hide consequences"
                  title="Show or hide consequences"
                  aria-expanded={open ?? undefined}
                  onClick={() => setOpen(!(open ?? window.innerWidth >= WIDE))}
                  h="30px"
                  w="30px"
                  // Above the pane, which lies over the work area in a narrow window.
                  position="relative"
                  zIndex={6}
                  flexShrink={0}
                  display="flex"
                  alignItems="center"
                  justifyContent="center"
                  border="1px solid"
                  borderColor="line"
                  rounded="4px"
                  bg="raised"
                  color="quiet"
                >
                  <PanelRight size={16} aria-hidden />
                </chakra.button>
              ) : null}
            </Flex>
            {lead ? (
              <Box color="quiet" mb="14px">
                {lead}
              </Box>
            ) : null}
            {children}
          </div>
        </chakra.main>
        {pane || note ? (
          <chakra.aside
            aria-label="Consequences"
            display={open ? 'block' : 'none'}
            w="304px"
            flexShrink={0}
            borderLeft="1px solid"
            borderColor="line"
            bg="raised"
            px="18px"
            py="16px"
            overflowY="auto"
            position="absolute"
            css={{
              [`@media (min-width: ${WIDE}px)`]: { display: open === false ? 'none' : 'block', position: 'static' },
            }}
            right={0}
            top={0}
            bottom={0}
            zIndex={5}
            maxW="90vw"
          >
            {note ? (
              <PaneSection title={`About: ${note.title}`}>
                <Box data-testid="field-note">{note.text}</Box>
              </PaneSection>
            ) : null}
            {pane}
          </chakra.aside>
        ) : null}
      </Flex>
    </NoteContext.Provider>
  );
}

export function PaneSection({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box pb="14px" mb="14px" borderBottom="1px solid" borderColor="line" fontSize="13px" _last={{ border: 0 }}>
      <PartTitle>{title}</PartTitle>
      {children}
    </Box>
  );
}
