'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Settings } from '@/contract/access';
import { TickBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { call } from '@/workbench/api';
import { OneFieldForm } from '@/workbench/one-field-form';

/** Whether people prove a second factor before their own page opens. */
export function SecondFactorOfPeople({ on, may }: { on: boolean; may: boolean }) {
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
export function NumberSetting({
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
