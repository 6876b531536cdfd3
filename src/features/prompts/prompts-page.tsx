'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { Play } from 'lucide-react';
import { useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { languageName } from '@/core/plan/facts/value-words';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { addressOf } from '@/workbench/api';
import { useEdits } from '@/workbench/edits';
import { Music, type MusicData } from './music';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

export interface PhraseShown {
  phrase: string;
  texts: { language: string; text: string }[];
  own: { id: string; name: string } | null;
}

/** All prompts, and what the exchange says itself where nobody says it otherwise. */
export function PromptsPage({
  data,
  phrases,
  music,
}: {
  data: LedgerPageData;
  phrases: readonly PhraseShown[];
  music: MusicData;
}) {
  return (
    <LedgerPage
      kind="prompt"
      title="Prompts"
      word="prompt"
      data={data}
      lead="What callers hear: uploaded, recorded here, or spoken from text."
      empty="A prompt is something that callers hear: a greeting, an announcement, music. Give it a text; it can be spoken from it, recorded here, or uploaded."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(150px, 1.2fr)' },
        { key: 'language', title: 'Languages', width: 'minmax(120px, 1fr)' },
        { key: 'length', title: 'Length', width: '70px', mono: true },
        { key: 'sound', title: 'Sound', width: '110px' },
        { key: 'used', title: 'Used', width: '140px' },
        { key: 'text', title: 'Text', width: 'minmax(160px, 2fr)' },
      ]}
      below={
        <>
          <Music data={music} />
          <Phrases phrases={phrases} canEdit={data.canEdit} />
        </>
      }
    />
  );
}

/** The figure with which a phrase that says one is heard here. */
const FIGURE = '3';

/** Plays what the exchange says for a phrase, as callers hear it. */
function Hear({ phrase, language }: { phrase: string; language: string }) {
  const audio = useRef<HTMLAudioElement>(null);
  const [wrong, setWrong] = useState(false);
  const play = () => {
    const player = audio.current!;
    player.src = addressOf('phraseSound', { params: { phrase, language }, query: { figure: FIGURE } });
    setWrong(false);
    void player.play().catch(() => setWrong(true));
  };
  return (
    <Flex gap="6px" align="center">
      <Act px="7px" aria-label={`Hear “${phrase}” in ${languageName(language)}`} onClick={play}>
        <Play size={14} aria-hidden />
      </Act>
      {wrong ? (
        <chakra.span role="status" color="saffronText" fontSize="12px">
          can’t be heard here
        </chakra.span>
      ) : null}
      <audio ref={audio} preload="none" aria-hidden />
    </Flex>
  );
}

/** The phrases of the exchange, language by language; each may be said in the organisation's own words. */
function Phrases({ phrases, canEdit }: { phrases: readonly PhraseShown[]; canEdit: boolean }) {
  const edits = useEdits();
  const [language, setLanguage] = useState('en');
  const [refused, setRefused] = useState<string | null>(null);
  const languages = phrases[0]?.texts.map((t) => t.language) ?? [];
  const own = async ({ phrase, texts }: PhraseShown) => {
    const id = uuid();
    const [first, ...others] = texts;
    const made = await edits.together(
      [
        {
          do: 'add',
          of: { kind: 'prompt', id },
          value: {
            id,
            name: `Says “${phrase}”`,
            phrase,
            language: first!.language,
            text: first!.text,
            versions: others.map((o) => ({ language: o.language, text: o.text })),
          },
        },
      ],
      `took “${phrase}” into own words`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
    if (made.ok) window.location.assign(`/prompts/${id}`);
  };
  return (
    <Box as="section" aria-label="What the exchange says itself" mt="26px" maxW="900px">
      <PartTitle
        aside={
          <Flex role="group" aria-label="Language of the phrases" gap="4px">
            {languages.map((l) => (
              <Act
                key={l}
                aria-pressed={l === language}
                bg={l === language ? 'plumTint' : undefined}
                onClick={() => setLanguage(l)}
              >
                {languageName(l)}
              </Act>
            ))}
          </Flex>
        }
      >
        What the exchange says itself
      </PartTitle>
      {refused ? <Wrong>{refused}</Wrong> : null}
      {phrases.map((p) => (
        <Grid
          key={p.phrase}
          templateColumns={{ base: '1fr', md: '110px auto minmax(0, 1fr) auto' }}
          gap="10px"
          alignItems="center"
          minH="34px"
          borderBottom="1px solid"
          borderColor="line"
          py="4px"
        >
          <b>{p.phrase}</b>
          <Hear key={language} phrase={p.phrase} language={language} />
          <chakra.span color={p.own ? 'quiet' : 'ink'}>
            {p.own ? (
              <>
                in your words:{' '}
                <Link href={`/prompts/${p.own.id}`} style={{ textDecoration: 'underline' }}>
                  {p.own.name}
                </Link>
              </>
            ) : (
              p.texts.find((t) => t.language === language)?.text
            )}
          </chakra.span>
          {canEdit && !p.own ? (
            <Act aria-label={`Say “${p.phrase}” in your own words`} onClick={() => void own(p)}>
              Say it otherwise
            </Act>
          ) : null}
        </Grid>
      ))}
    </Box>
  );
}
