'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { CallPage } from '@/contract/board';
import { Act, TextBox, TickBox, Wrong } from '@/ui/controls';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';
import { wordsIn } from './words';

/** What callers see of a queue or a person: whether somebody answers now, how long it takes, where to call, and a wish to be called. */
export function PublicCallPage({ page, facts }: { page: string; facts: CallPage }) {
  const words = wordsIn(facts.language);
  const said =
    facts.whose === 'queue'
      ? { open: words.open, closed: words.closed, from: words.opensAt }
      : { open: words.reached, closed: words.away, from: words.reachedFrom };
  const when = facts.until
    ? new Intl.DateTimeFormat(facts.language, {
        weekday: 'long',
        hour: '2-digit',
        minute: '2-digit',
        timeZone: facts.zone,
      }).format(new Date(facts.until))
    : null;
  return (
    <chakra.main lang={facts.language} maxW="440px" mx="auto" px="16px" py={{ base: '24px', md: '56px' }}>
      <title>{`${facts.name} · ${facts.organisation}`}</title>
      <Box color="quiet" mb="4px">
        {facts.organisation}
      </Box>
      <chakra.h1 fontSize="30px" lineHeight="36px" fontWeight={800} letterSpacing="-0.02em" mb="14px">
        {facts.name}
      </chakra.h1>
      <Flex align="baseline" gap="8px" mb="4px" wrap="wrap" data-testid="open">
        <Box
          as="span"
          display="inline-block"
          w="11px"
          h="11px"
          rounded={facts.open ? 'full' : '2px'}
          bg={facts.open ? 'pine' : 'brick'}
          aria-hidden
        />
        <b>{facts.open ? said.open : said.closed}</b>
        {when ? <span>{facts.open ? words.openUntil(when) : said.from(when)}</span> : null}
      </Flex>
      {facts.waitMinutes === null ? null : <Box mb="4px">{words.wait(facts.waitMinutes)}</Box>}
      {facts.number ? (
        <chakra.a
          href={`tel:${facts.number.e164}`}
          display="block"
          textAlign="center"
          bg="plum.solid"
          color="white"
          fontWeight={700}
          fontSize="18px"
          rounded="4px"
          py="14px"
          px="12px"
          mt="18px"
        >
          {words.call(facts.number.shown)}
        </chakra.a>
      ) : null}
      <Wish page={page} name={facts.organisation} words={words} />
    </chakra.main>
  );
}

interface Typed {
  number: string;
  name: string;
  consent: boolean;
}

function Wish({ page, name, words }: { page: string; name: string; words: ReturnType<typeof wordsIn> }) {
  const [asked, setAsked] = useState<string | null>(null);
  const { form, submit, busy, general } = useActForm<'askCallback', Typed>({
    operation: 'askCallback',
    checked: false,
    defaults: { number: '', name: '', consent: false },
    input: ({ consent: _, ...body }) => ({ params: { page }, body: { ...body, consent: true } }),
    unsaid: (t) => [
      ...(t.number.trim() === '' ? [{ field: 'number' as const, sentence: words.typeNumber }] : []),
      ...(t.consent ? [] : [{ field: 'consent' as const, sentence: words.needConsent }]),
    ],
    onMade: ({ shown }) => setAsked(shown),
  });
  if (asked)
    return (
      <Box role="status" mt="28px" fontWeight={700}>
        {words.asked(asked)}
      </Box>
    );
  return (
    <chakra.form noValidate mt="28px" onSubmit={(e) => void submit(e)}>
      <chakra.h2 fontSize="18px" fontWeight={700} mb="8px">
        {words.wish}
      </chakra.h2>
      <Flex direction="column" gap="12px">
        <FormField form={form} name="number" title={words.number} id="wish-number">
          {({ change, ...rest }) => (
            <TextBox {...rest} h="42px" type="tel" autoComplete="tel" onChange={(e) => change(e.target.value)} />
          )}
        </FormField>
        <FormField form={form} name="name" title={words.name} id="wish-name">
          {({ change, ...rest }) => (
            <TextBox {...rest} h="42px" autoComplete="name" maxLength={80} onChange={(e) => change(e.target.value)} />
          )}
        </FormField>
        <FormField form={form} name="consent" title="" id="wish-consent">
          {({ change, value, ...rest }) => (
            <Flex as="label" gap="10px" align="flex-start" py="6px">
              <TickBox type="checkbox" mt="2px" {...rest} checked={value} onChange={(e) => change(e.target.checked)} />
              <span>{words.consent(name)}</span>
            </Flex>
          )}
        </FormField>
        {general ? <Wrong>{general}</Wrong> : null}
        <Act type="submit" h="42px" disabled={busy}>
          {words.ask}
        </Act>
      </Flex>
    </chakra.form>
  );
}
