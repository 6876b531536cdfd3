'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { OwnStepSaid } from '@/contract/own';
import { Act, PartTitle, TextBox, TickBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { say } from '@/ui/toasts';
import { call } from '@/workbench/api';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';
import type { OwnPhone } from './data';
import { OwnLine } from './own-line';

interface Typed {
  steps: { rings: string; seconds: string; together: boolean; keyToTake: boolean }[];
}

const whole = (seconds: string) => (/^[0-9]{1,4}$/.test(seconds) ? Number(seconds) : NaN);

const bodyOf = ({ steps }: Typed) => ({
  showsCaller: true,
  steps: steps.map((s, i) => ({ ...s, together: i > 0 && s.together, seconds: whole(s.seconds) })),
});

/** One’s own reach plan: which phones ring, together or in turn, before the mailbox takes the call. */
export function ReachPart({ phone, account }: { phone: OwnPhone; account: string }) {
  const refresh = useRefresh();
  const [said, setSaid] = useState<OwnStepSaid[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const first: Typed = {
    steps: (
      phone.own?.steps ?? [{ rings: phone.digits, seconds: phone.ringSeconds, together: false, keyToTake: true }]
    ).map(({ rings, seconds, together, keyToTake }) => ({ rings, seconds: String(seconds), together, keyToTake })),
  };
  const { form, submit, busy, general, touched, clear } = useActForm<'ownReach', Typed>({
    operation: 'ownReach',
    checked: false,
    defaults: first,
    input: (t) => ({ params: { id: phone.id }, body: { plan: bodyOf(t) } }),
    fieldOf: (path) => (/^plan\.steps\.\d+\.(rings|seconds)/.test(path) ? (path.slice('plan.'.length) as never) : null),
    unsaid: (t) =>
      t.steps.flatMap((s, i) =>
        Number.isNaN(whole(s.seconds))
          ? [{ field: `steps.${i}.seconds` as const, sentence: 'Give whole seconds, 5 to 180.' }]
          : [],
      ),
    keep: { key: `${account} reach ${phone.id}`, about: { title: 'My reach plan', path: '/own' } },
    onMade: ({ steps }) => {
      setSaid(steps);
      clear();
      refresh();
      say('Calls find you that way from now on.');
    },
  });
  const steps = useWatch({ control: form.control, name: 'steps' });
  const put = (next: Typed['steps']) => {
    form.setValue('steps', next, { shouldDirty: true });
    setSaid([]);
  };
  const check = async () => {
    const got = await call('ownReachCheck', { params: { id: phone.id }, body: bodyOf(form.getValues()) });
    setSaid(got.ok ? got.value.steps : []);
  };
  const back = async () => {
    const done = await call('ownReach', { params: { id: phone.id }, body: { plan: null } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    clear();
    refresh();
  };
  return (
    <Box mb="18px">
      <PartTitle>Where calls find me</PartTitle>
      <OwnLine steps={steps} digits={phone.digits} mailbox={phone.mailbox !== null} />
      <form noValidate onSubmit={(e) => void submit(e)}>
        {steps.map((step, i) => (
          <Flex key={i} gap="8px" align="flex-start" mb="6px" wrap="wrap" data-testid="own-step">
            <Box flex="1" minW="150px">
              <FormField
                form={form}
                name={`steps.${i}.rings`}
                title={`Step ${i + 1} rings`}
                id={`rings-${phone.id}-${i}`}
              >
                {({ change, onBlur, ...rest }) => (
                  <TextBox
                    {...rest}
                    fontFamily="mono"
                    inputMode="tel"
                    placeholder="extension or telephone number"
                    onBlur={() => {
                      onBlur();
                      void check();
                    }}
                    onChange={(e) => change(e.target.value)}
                  />
                )}
              </FormField>
              <Notes said={said[i]} />
            </Box>
            <Box w="74px">
              <FormField form={form} name={`steps.${i}.seconds`} title="Seconds" id={`seconds-${phone.id}-${i}`}>
                {({ change, ...rest }) => (
                  <TextBox {...rest} inputMode="numeric" onChange={(e) => change(e.target.value)} />
                )}
              </FormField>
            </Box>
            <Box pt="19px" fontSize="13px">
              {i > 0 ? <Tick form={form} name={`steps.${i}.together`} words="with the step before" /> : null}
              {step.rings.trim() === phone.digits ? null : (
                <Tick form={form} name={`steps.${i}.keyToTake`} words="key to take, when outside" />
              )}
            </Box>
            <Act
              mt="20px"
              w="32px"
              px="0"
              aria-label={`Take out step ${i + 1}`}
              disabled={steps.length === 1}
              onClick={() => put(form.getValues('steps').filter((_, at) => at !== i))}
            >
              <X size={15} aria-hidden />
            </Act>
          </Flex>
        ))}
        <Flex gap="8px" mt="8px" wrap="wrap" align="center">
          <Act
            aria-label={`Add a phone, ${phone.digits}`}
            onClick={() =>
              put([...form.getValues('steps'), { rings: '', seconds: '20', together: false, keyToTake: true }])
            }
          >
            <Plus size={14} aria-hidden />
            Add a phone
          </Act>
          <Act type="submit" look={touched ? 'main' : 'plain'} disabled={busy}>
            Use this
          </Act>
          {phone.own ? (
            <Act onClick={() => void back()}>
              {phone.planned ? `Back to “${phone.planned.name}”` : 'Ring my phone only'}
            </Act>
          ) : null}
        </Flex>
        {phone.planned && !phone.own ? (
          <Box fontSize="13px" color="quiet" mt="6px">
            Now {phone.planned.name} holds, which your administrator made:{' '}
            {phone.planned.steps.map((s) => `${s.label}, ${s.seconds} s`).join(' → ')}
            {phone.planned.end ? ` → ${phone.planned.end}` : ''}.
          </Box>
        ) : null}
        {(general ?? wrong) ? <Wrong>{general ?? wrong}</Wrong> : null}
      </form>
    </Box>
  );
}

const Notes = ({ said }: { said: OwnStepSaid | undefined }) =>
  said ? (
    <Box fontSize="12px" mt="2px" data-testid="step-said">
      <chakra.span color="quiet">{said.label}</chakra.span>
      {said.notes.map((n) => (
        <Box key={n} color="ochre">
          {n}
        </Box>
      ))}
    </Box>
  ) : null;

function Tick({
  form,
  name,
  words,
}: {
  form: ReturnType<typeof useActForm<'ownReach', Typed>>['form'];
  name: `steps.${number}.together` | `steps.${number}.keyToTake`;
  words: string;
}) {
  return (
    <FormField form={form} name={name} title="">
      {({ change, value, ...rest }) => (
        <Flex as="label" gap="6px" align="center" minH="24px">
          <TickBox type="checkbox" {...rest} checked={value} onChange={(e) => change(e.target.checked)} />
          {words}
        </Flex>
      )}
    </FormField>
  );
}
