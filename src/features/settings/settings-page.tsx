'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useTheme } from 'next-themes';
import { useState, useSyncExternalStore } from 'react';
import type { Settings } from '@/contract/access';
import { call } from '@/workbench/api';
import type { LimitName } from '@/core/acts/limits';
import { LimitsPart } from './limits-part';
import type { FieldsData } from '@/workbench/form-data';
import { ObjectParts } from '@/workbench/object-page';
import { FigureBox } from '@/ui/figure-box';
import { useAccount } from '@/workbench/edits';
import { formFields } from '@/workbench/form-fields';
import { OneFieldForm } from '@/workbench/one-field-form';
import { PasswordPart } from '@/workbench/password-part';
import { useActForm } from '@/workbench/use-act-form';
import { SecondFactorPart } from '@/workbench/second-factor-part';
import type { ApiToken as Token, SessionFacts as Session } from '@/contract/access';
import type { Mail, MailSettings } from '@/contract/mail';
import { MailPart } from './mail-part';
import { SessionsPart } from './sessions-part';
import { Act, ActLink, PartTitle, TickBox, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { Time } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { useRefresh } from '@/ui/refresh';

export function SettingsPage({
  name,
  role,
  settings,
  maySet,
  tokens,
  roles,
  secondFactor,
  sessions,
  limits,
  limitWords,
  used,
  mayAdminister,
  organisation,
  mail,
}: {
  name: string;
  role: string;
  settings: Settings;
  maySet: boolean;
  tokens: Token[] | null;
  roles: { id: string; name: string }[];
  secondFactor: boolean;
  sessions: Session[];
  limits: Record<LimitName, number | null>;
  limitWords: Record<LimitName, string>;
  used: Record<LimitName, number>;
  mayAdminister: boolean;
  organisation: FieldsData;
  /** null: not the reader's to see */
  mail: { settings: MailSettings | null; mails: Mail[] } | null;
}) {
  const signOut = async () => {
    await call('signOut');
    window.location.assign('/sign-in');
  };
  return (
    <Workspace
      title="Settings"
      lead={`Signed in as ${name}, ${role}.`}
      acts={
        <>
          {mayAdminister ? <ActLink href="/administrators">Administrators and roles</ActLink> : null}
          <Act onClick={signOut}>Sign out</Act>
        </>
      }
    >
      <Box maxW="720px">
        <Part title="Look">
          <ThemeChoice />
        </Part>
        <Part title="Your password">
          <PasswordPart />
        </Part>
        <Part title="Second factor">
          <SecondFactorPart on={secondFactor} />
        </Part>
        <Part title={mayAdminister ? 'Open sessions, everybody’s' : 'Your open sessions'}>
          <SessionsPart sessions={sessions} />
        </Part>
        <Part title="Limits of the organisation">
          <LimitsPart limits={limits} words={limitWords} used={used} may={maySet} />
        </Part>
        <ObjectParts
          data={organisation}
          parts={[
            {
              title: 'The organisation',
              fields: ['name', 'language', 'dayOrder', 'numberSpace', 'interDigitSeconds', 'firstDigitSeconds'],
            },
            {
              title: 'Callers who are turned away',
              fields: ['blockedCallers', 'blockedLeadTo', 'rejectsWithheld', 'withheldLeadTo'],
            },
            { title: 'Transfers and mailbox PINs', fields: ['recallSeconds', 'pinLeastDigits'] },
            { title: 'Going live', fields: ['secondPerson', 'quietTimes'] },
          ]}
        />
        <Part title="Sign-out">
          <NumberSetting
            setting="idleSignOutMinutes"
            title="Minutes without a sign of life, for everybody (acts at once)"
            act="Set minutes"
            settings={settings}
            may={maySet}
          />
          <NumberSetting
            setting="mostSessionHours"
            title="Hours after signing in, however busy"
            act="Set hours"
            settings={settings}
            may={maySet}
          />
        </Part>
        <Part title="Pages of people">
          <SecondFactorOfPeople on={settings.peopleSecondFactor} may={maySet} />
        </Part>
        {mail ? (
          <Part title="Mail">
            <MailPart settings={mail.settings} mails={mail.mails} />
          </Part>
        ) : null}
        <Part title="Call records">
          <NumberSetting
            setting="keepCallsMonths"
            title="Whole months that they are kept; empty: for ever. Older ones go by themselves"
            act="Set months"
            settings={settings}
            may={maySet}
            endless
          />
          <NumberSetting
            setting="keepRecordingsDays"
            title="Whole days that their recordings are kept; empty: as long as the call"
            act="Set days"
            settings={settings}
            may={maySet}
            endless
          />
        </Part>
        {tokens ? (
          <Part title="API tokens">
            <Tokens tokens={tokens} roles={roles} />
          </Part>
        ) : null}
        <Part title="API">
          Scripts use{' '}
          <chakra.a href="/api/v1/openapi.json" textDecoration="underline">
            /api/v1
          </chakra.a>{' '}
          with a bearer token; the link is its description (OpenAPI 3.1).
        </Part>
      </Box>
    </Workspace>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box mb="24px">
      <PartTitle>{title}</PartTitle>
      {children}
    </Box>
  );
}

function ThemeChoice() {
  const { theme, setTheme } = useTheme();
  const here = useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );
  return (
    <Flex gap="6px" role="group" aria-label="Theme">
      {['light', 'dark', 'system'].map((t) => (
        <Act
          key={t}
          aria-pressed={here && theme === t}
          bg={here && theme === t ? 'plumTint' : undefined}
          borderColor={here && theme === t ? 'plum' : 'line'}
          onClick={() => setTheme(t)}
        >
          {t === 'system' ? 'as the device' : t}
        </Act>
      ))}
    </Flex>
  );
}

/** Whether people prove a second factor before their own page opens. */
function SecondFactorOfPeople({ on, may }: { on: boolean; may: boolean }) {
  const refresh = useRefresh();
  const [wanted, setWanted] = useState<boolean | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const set = async (next: boolean) => {
    setWanted(next);
    const done = await call('settings', { body: { peopleSecondFactor: next } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (!done.ok) setWanted(null);
    refresh();
  };
  return (
    <Box>
      <Flex as="label" gap="8px" align="center" minH="28px">
        <TickBox type="checkbox" checked={wanted ?? on} disabled={!may} onChange={(e) => void set(e.target.checked)} />
        <span>People need a second factor for the page of their own</span>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}

/** A number that holds for everybody, with the act that sets it. */
function NumberSetting({
  setting,
  title,
  act,
  settings,
  may,
  endless = false,
}: {
  setting: Exclude<keyof Settings, 'peopleSecondFactor'>;
  /** empty says that there is no end */
  endless?: boolean;
  title: string;
  act: string;
  settings: Settings;
  may: boolean;
}) {
  return (
    <Box mb="10px">
      <OneFieldForm
        key={settings[setting]}
        operation="settings"
        input={(value) => ({ body: { [setting]: endless && value === '' ? null : Number(value) } })}
        id={setting}
        title={title}
        act={act}
        done="It holds from now on, for everybody."
        first={String(settings[setting] ?? '')}
        empties={endless}
        may={may}
        wrong={(value) => (/^[0-9]+$/.test(value) ? null : 'A whole number is needed.')}
        inputMode="numeric"
        w="160px"
      />
    </Box>
  );
}

function Tokens({ tokens, roles }: { tokens: Token[]; roles: { id: string; name: string }[] }) {
  const refresh = useRefresh();
  const account = useAccount();
  const [made, setMade] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const { form, submit, busy, general, clear } = useActForm<'makeToken', { name: string; role: string; days: string }>({
    operation: 'makeToken',
    defaults: { name: '', role: 'auditor', days: '90' },
    input: ({ days, ...t }) => ({ body: { ...t, days: days === '' ? null : Number(days) } }),
    keep: { key: `${account} new token`, about: { title: 'New API token', path: '/settings' } },
    onMade: ({ token }) => {
      setMade(token);
      clear();
      refresh();
    },
  });
  const { field, text, select } = formFields(form, { prefix: 'token' });
  const revoke = async (id: string) => {
    const done = await call('revokeToken', { params: { id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  // Tokens of one name are told apart by their place among them.
  const namesakes = (at: number) => {
    const same = tokens.filter((t) => t.name === tokens[at]!.name);
    return same.length > 1 ? `, ${same.indexOf(tokens[at]!) + 1} of ${same.length}` : '';
  };
  return (
    <Box>
      {tokens.length === 0 ? (
        <Box color="quiet" mb="8px">
          No script has a token yet.
        </Box>
      ) : null}
      {tokens.map((t, i) => (
        <Flex
          key={t.id}
          gap="12px"
          align="center"
          minH="36px"
          borderTop="1px solid"
          borderColor="line"
          fontSize="13px"
          wrap="wrap"
          color={t.revokedAt ? 'quiet' : 'ink'}
        >
          <b>{t.name}</b>
          <Box color="quiet">
            {roles.find((r) => r.id === t.role)?.name ?? t.role}, by {t.createdBy}, until{' '}
            {t.expiresAt ? <Time iso={t.expiresAt} dayOnly /> : 'revoked'}, last used{' '}
            {t.lastUsedAt ? <Time iso={t.lastUsedAt} dayOnly /> : 'never'}
          </Box>
          <Box ml="auto">
            {t.revokedAt ? (
              <>
                revoked <Time iso={t.revokedAt} dayOnly />
              </>
            ) : (
              <Act h="24px" look="danger" aria-label={`Revoke ${t.name}${namesakes(i)}`} onClick={() => revoke(t.id)}>
                Revoke
              </Act>
            )}
          </Box>
        </Flex>
      ))}
      <form onSubmit={(e) => void submit(e)}>
        <Flex gap="8px" align="flex-start" mt="12px" wrap="wrap">
          <Box w="200px">{text('name', 'Name', { placeholder: 'nightly report' })}</Box>
          <Box w="150px">
            {select(
              'role',
              'Rights of',
              roles.map((r) => ({ id: r.id, label: r.name })),
            )}
          </Box>
          <Box w="130px">
            {field('days', 'Days', ({ change, onBlur, name: _name, ref: _ref, ...rest }) => (
              <FigureBox {...rest} title="Days" onChange={change} onLeave={onBlur} />
            ))}
          </Box>
          <Act mt="21px" type="submit" disabled={busy}>
            Make token
          </Act>
        </Flex>
      </form>
      {made ? (
        <Box role="status" mt="10px" border="1px solid" borderColor="pine" rounded="4px" p="10px">
          Copy it now; it is not shown again:{' '}
          <Digits whiteSpace="normal" wordBreak="break-all" data-testid="token">
            {made}
          </Digits>
        </Box>
      ) : null}
      {(wrong ?? general) ? (
        <Box mt="8px">
          <Wrong>{wrong ?? general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
