'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { ApiToken as Token, SessionFacts as Session, Settings } from '@/contract/access';
import type { Mail, MailSettings } from '@/contract/mail';
import type { LimitName } from '@/core/acts/limits';
import { Act, ActLink, PartTitle } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import type { FieldsData } from '@/workbench/form-data';
import { ObjectParts } from '@/workbench/object-page';
import { PasswordPart } from '@/workbench/password-part';
import { SecondFactorPart } from '@/workbench/second-factor-part';
import { LimitsPart } from './limits-part';
import { MailPart } from './mail-part';
import { SessionsPart } from './sessions-part';
import { NumberSetting, SecondFactorOfPeople } from './settings-for-all';
import { ThemeChoice } from './theme-choice';
import { TokensPart } from './tokens-part';

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
            <TokensPart tokens={tokens} roles={roles} />
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
