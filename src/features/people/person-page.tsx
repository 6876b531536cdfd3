'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { ActLink, PartTitle } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { ForwardingPart, type Forwarding } from '@/workbench/extension/forwarding-part';
import { OwnNumbers } from '@/workbench/extension/own-numbers';
import { PasswordOnce } from '@/workbench/extension/password-once';
import { PinPart } from '@/workbench/extension/pin-part';
import { ObjectPage, ObjectParts } from '@/workbench/object-page';
import { CallsLinks } from '@/workbench/calls-links';
import type { ObjectPageData, Option } from '@/workbench/form-data';
import { tracePath } from '@/workbench/paths';
import { InvitePart, type OwnSet } from './invite-part';
import { PresencePart, type PresenceLine } from './presence-part';
import { ReachStrip, type Reach } from './reach-strip';

interface Landing {
  when: string;
  at: number | null;
  lands: { kind: string; label: string } | null;
  outcome: string;
}

interface PersonExtension {
  data: ObjectPageData;
  numbers: { id: string; e164: string; state: string }[];
  lands: Landing[];
  forwarding: Forwarding[];
  reach: Reach | null;
  presence: PresenceLine[];
  mailbox: { data: ObjectPageData; pinSet: boolean } | null;
}

interface Props {
  data: ObjectPageData;
  /** what they set on the page of their own */
  ownSet: readonly OwnSet[];
  extensions: PersonExtension[];
  destinations: Option[];
  manyDestinations: boolean;
}

/** Everything of one person on one page: who, phone and rights, how calls find them, mailbox; and the acts of moving and leaving. */
export function PersonPage({ data, ownSet, extensions, destinations, manyDestinations }: Props) {
  const router = useRouter();
  const id = data.object.id!;
  const first = extensions[0];
  const digits = first ? String(first.data.object.digits) : null;
  const link = (href: string, text: string) => (
    <ActLink
      href={href}
      onClick={(e) => {
        e.preventDefault();
        router.push(href);
      }}
    >
      {text}
    </ActLink>
  );
  return (
    <ObjectPage
      data={data}
      listPath="/people"
      acts={
        <>
          {digits ? link(tracePath(digits, '112'), `Ask as ${digits}`) : null}
          <CallsLinks rights={data.rights} filter={{ person: id }} words="Calls" />
          {link(`/people/${id}/same-as`, 'Same as…')}
          {data.canEdit ? link(`/people/${id}/move`, 'Moves…') : null}
        </>
      }
      removal={data.canEdit ? link(`/people/${id}/leave`, 'Leaves…') : undefined}
      top={() => (first ? <Found extension={first} /> : null)}
      parts={[
        { title: 'Who and where', fields: ['name', 'email', 'site', 'teams'] },
        {
          title: 'A page of their own',
          draw: () => (
            <InvitePart
              person={id}
              email={(data.object.email as string | null) ?? null}
              may={data.rights.includes('resetPin')}
              set={ownSet}
            />
          ),
        },
        { title: 'Language, spelling and note', fields: ['language', 'spelling', 'note'], rare: true },
      ]}
      below={extensions.map((e) => (
        <OneExtension
          key={e.data.object.id}
          extension={e}
          destinations={destinations}
          manyDestinations={manyDestinations}
        />
      ))}
    />
  );
}

const WHEN: Record<string, string> = { now: 'Now', closed: 'Out of hours', holiday: 'Next holiday' };

/** How callers find the person: numbers, the reach plan as steps in line, and where calls from outside end and when. */
function Found({ extension: e }: { extension: PersonExtension }) {
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="14px" maxW="760px">
      <Flex gap="24px" wrap="wrap" mb={e.lands.length > 0 ? '12px' : 0}>
        <Box>
          <PartTitle>Dialled inside</PartTitle>
          <Digits fontSize="18px">{String(e.data.object.digits)}</Digits>
        </Box>
        <Box flex="1">
          <PartTitle>Own numbers</PartTitle>
          <OwnNumbers numbers={e.numbers} />
        </Box>
      </Flex>
      {e.lands.length > 0 ? (
        <Flex gap="24px" wrap="wrap" mb="12px">
          {e.lands.map((l) => (
            <Box key={l.when}>
              <PartTitle>{WHEN[l.when]}</PartTitle>
              <Flex gap="7px" align="center" fontSize="13px">
                <Glyph kind={l.lands?.kind ?? 'refused'} />
                {l.at === null ? <chakra.span color="quiet">the same</chakra.span> : (l.lands?.label ?? l.outcome)}
              </Flex>
            </Box>
          ))}
        </Flex>
      ) : null}
      <ReachStrip
        extension={e.data.object}
        reach={e.reach}
        mailbox={e.mailbox ? String(e.mailbox.data.object.name) : null}
      />
    </Box>
  );
}

function OneExtension({
  extension: e,
  destinations,
  manyDestinations,
}: {
  extension: PersonExtension;
  destinations: Option[];
  manyDestinations: boolean;
}) {
  const o = e.data.object as { id: string; digits: string; kind: string };
  const may = (right: string) => e.data.rights.includes(right);
  return (
    <Box borderTop="1px solid" borderColor="line" pt="16px" mt="4px">
      <ObjectParts
        data={e.data}
        parts={[
          {
            title: `What extension ${o.digits} may dial and shows`,
            fields: ['class', 'outgoingNumber', 'withholdNumber'],
          },
          { title: 'When nobody answers', fields: ['ringSeconds', 'mailbox', 'reachPlan'] },
          { title: 'Digits and name on phones', fields: ['digits', 'name'], rare: true },
          {
            title: 'Forwarding, at once',
            draw: () => <ForwardingPart extension={o.id} forwarding={e.forwarding} may={may('setForwarding')} />,
          },
          ...(e.presence.length > 0
            ? [
                {
                  title: 'Forwarding by presence',
                  draw: () => (
                    <PresencePart
                      extension={o.id}
                      lines={e.presence}
                      destinations={destinations}
                      search={manyDestinations}
                      may={e.data.canEdit}
                    />
                  ),
                },
              ]
            : []),
          ...(may('seeSecrets') && o.kind !== 'virtual'
            ? [
                {
                  title: 'Phone',
                  draw: () => <PasswordOnce extension={o.id} mayMake={e.data.canEdit} />,
                },
              ]
            : []),
        ]}
      />
      {e.mailbox ? (
        <Box borderTop="1px solid" borderColor="line" pt="16px">
          <ObjectParts
            data={e.mailbox.data}
            parts={[
              {
                title: 'Who hears messages, and how they are told',
                fields: ['owners', 'email', 'attachSound', 'afterMail'],
              },
              {
                title: 'How the mailbox is opened',
                draw: () => (
                  <PinPart
                    mailbox={e.mailbox!.data.object.id!}
                    digits={o.digits}
                    may={may('resetPin')}
                    pinSet={e.mailbox!.pinSet}
                  />
                ),
              },
              { title: 'What callers hear', fields: ['on', 'greeting', 'greetingBusy', 'greetingAway'], rare: true },
              {
                title: 'What is said before a message, and how much it holds',
                fields: ['announceNumber', 'announceTime', 'mostMessages', 'longestMessageSeconds'],
                rare: true,
              },
            ]}
          />
        </Box>
      ) : null}
    </Box>
  );
}
