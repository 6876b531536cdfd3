'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Act, Empty } from '@/ui/controls';
import { FacesProvider } from '@/ui/kinds';
import { DayOrderProvider } from '@/ui/time';
import { Toasts } from '@/ui/toasts';
import { call } from '@/workbench/api';
import { MessagesPart } from '@/workbench/messages/messages-part';
import { PasswordPart } from '@/workbench/password-part';
import { SecondFactorPart } from '@/workbench/second-factor-part';
import { AgentPart } from './agent-part';
import { CallsPart } from './calls-part';
import { ColleaguesPart } from './colleagues-part';
import type { OwnData, OwnMailbox, OwnPhone } from './data';
import { ForwardingPart } from './forwarding-part';
import { GreetingsPart } from './greetings-part';
import { OwnPin } from './own-pin';
import { PresenceNow } from './presence-now';
import { ReachPart } from './reach-part';
import { WaitsPart } from './waits-part';

/** A person’s own page: where calls find them, what callers hear, their messages and who called. All of it acts at once. */
export function OwnPage({ data }: { data: OwnData }) {
  const { own } = data;
  const signOut = async () => {
    await call('signOut');
    window.location.assign('/sign-in');
  };
  return (
    <FacesProvider faces={data.faces}>
      <DayOrderProvider value={data.dayOrder}>
        <title>My telephone · Polydrome</title>
        <Flex
          as="header"
          align="center"
          gap="12px"
          px={{ base: '12px', md: '24px' }}
          minH="48px"
          borderBottom="1px solid"
          borderColor="line"
          bg="raised"
          wrap="wrap"
        >
          <chakra.span fontWeight={800} fontSize="17px" letterSpacing="-0.02em">
            poly<chakra.span color="plum">drome</chakra.span>
          </chakra.span>
          <Box flex="1" />
          <Box fontSize="13px" color="quiet">
            {data.signIn}
          </Box>
          <Act onClick={() => void signOut()}>Sign out</Act>
        </Flex>
        <chakra.main maxW="820px" mx="auto" px={{ base: '12px', md: '24px' }} py="20px">
          <chakra.h1 fontSize="24px" lineHeight="30px" fontWeight={700} mb="2px">
            {data.name}
          </chakra.h1>
          {own === null ? (
            <Section title="First, a second factor">
              <Box mb="10px">The organisation asks for one before this page opens.</Box>
              <SecondFactorPart on={false} />
            </Section>
          ) : own === 'gone' ? (
            <Empty>You are not in the telephone plan any more. Ask your administrator.</Empty>
          ) : (
            <Whole own={own} account={data.account} />
          )}
          <Section title="Signing in">
            <PasswordPart />
            {own === null ? null : (
              <Box mt="14px">
                <SecondFactorPart on={data.secondFactor} />
              </Box>
            )}
          </Section>
        </chakra.main>
        <Toasts />
      </DayOrderProvider>
    </FacesProvider>
  );
}

function Whole({ own, account }: { own: Exclude<OwnData['own'], null | 'gone'>; account: string }) {
  return (
    <>
      <Box color="quiet" mb="18px">
        {own.organisation}. What you set here holds at once.
      </Box>
      <PresenceNow states={own.states} presence={own.presence} />
      {own.phones.length === 0 ? <Empty>You have no extension yet.</Empty> : null}
      {own.phones.map((p) => (
        <Phone key={p.id} phone={p} account={account} />
      ))}
      {own.mailboxes.map((m) => (
        <Mailbox key={m.id} mailbox={m} account={account} />
      ))}
      <WaitsPart title={(inside) => <Section title="Queues you manage">{inside}</Section>} />
      <Section title="Who called">
        <CallsPart calls={own.calls} />
      </Section>
      {own.watched.length > 0 ? (
        <Section title="Colleagues">
          <ColleaguesPart watched={own.watched} />
        </Section>
      ) : null}
    </>
  );
}

const Phone = ({ phone, account }: { phone: OwnPhone; account: string }) => (
  <Section
    title={`Extension ${phone.digits}`}
    aside={phone.numbers.length > 0 ? `from outside ${phone.numbers.join(', ')}` : undefined}
  >
    {phone.ends.length > 0 ? (
      <Box mb="12px" data-testid="ends">
        A call that nobody takes goes: <b>{phone.ends.join(' → ')}</b>
      </Box>
    ) : null}
    {phone.agent ? <AgentPart phone={phone} agent={phone.agent} /> : null}
    <ReachPart phone={phone} account={account} />
    <ForwardingPart phone={phone} account={account} />
  </Section>
);

const Mailbox = ({ mailbox, account }: { mailbox: OwnMailbox; account: string }) => (
  <Section
    id={`mailbox-${mailbox.id}`}
    title={mailbox.group ? `Messages of ${mailbox.name}` : 'Messages'}
    aside={mailbox.email ? `notices go to ${mailbox.email}` : undefined}
  >
    {mailbox.on ? null : <Box mb="8px">This mailbox is off: it takes no new messages.</Box>}
    <MessagesPart mailbox={mailbox.id} owners={[]} />
    <GreetingsPart mailbox={mailbox} account={account} />
    <OwnPin mailbox={mailbox.id} set={mailbox.pinSet} />
  </Section>
);

function Section({ title, aside, id, children }: { title: string; aside?: string; id?: string; children: ReactNode }) {
  return (
    <chakra.section
      id={id}
      aria-label={title}
      border="1px solid"
      borderColor="line"
      rounded="4px"
      bg="raised"
      px={{ base: '12px', md: '18px' }}
      py="14px"
      mb="16px"
      scrollMarginTop="12px"
    >
      <Flex gap="4px 14px" align="baseline" mb="10px" wrap="wrap">
        <chakra.h2 fontSize="16px" fontWeight={700}>
          {title}
        </chakra.h2>
        {aside ? (
          <Box color="quiet" fontSize="13px">
            {aside}
          </Box>
        ) : null}
      </Flex>
      {children}
    </chakra.section>
  );
}
