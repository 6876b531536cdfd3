'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useForm, type Resolver } from 'react-hook-form';
import { Act } from '@/ui/controls';
import { formFields } from '@/workbench/form-fields';
import { tracePath } from '@/workbench/paths';
import { PhoneBox } from '@/workbench/phone-box';

interface Typed {
  from: string;
  dial: string;
  when: string;
}

const NOTES = {
  from: 'An extension, a name, or an outside number.',
  dial: 'As the caller dials it. Example: 9 01632 960150.',
  when: 'now, fri 17:10, tomorrow 8, 24 dec 08:00.',
};

const MISSING = { from: 'Say who calls.', dial: 'Say what is dialled.' };

/** A question has a caller and digits; when it is left out, now is meant. */
const asked: Resolver<Typed> = (values) => {
  const missing = (['from', 'dial'] as const).filter((f) => values[f].trim() === '');
  if (missing.length === 0) return { values, errors: {} };
  return {
    values: {},
    errors: Object.fromEntries(missing.map((f) => [f, { type: 'required', message: MISSING[f] }])),
  };
};

/** The same question built with three fields, for those who don't type lines. */
export default function Pickers({ onAsk, onClose }: { onAsk: (path: string) => void; onClose: () => void }) {
  const form = useForm<Typed>({
    defaultValues: { from: '', dial: '', when: 'now' },
    resolver: asked,
    mode: 'onSubmit',
  });
  const { field, text } = formFields(form, { prefix: 'pick', notes: NOTES, beneath: true });
  // A list does not hear of a focus that was there before it.
  const { setFocus } = form;
  useEffect(() => setFocus('from'), [setFocus]);
  const ask = form.handleSubmit(({ from, dial, when }) => onAsk(tracePath(from, dial, when)));
  return (
    <chakra.form
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
      p="14px"
      noValidate
      onSubmit={(e) => void ask(e)}
    >
      <Flex gap="12px" align="flex-start" wrap="wrap">
        <Box flex="1" minW="150px">
          {field('from', 'Who calls', ({ change, ...rest }) => (
            <PhoneBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box flex="1" minW="150px">
          {text('dial', 'What is dialled', { fontFamily: 'mono' })}
        </Box>
        <Box w="190px">{text('when', 'When')}</Box>
        <Flex gap="8px" pt="20px">
          <Act look="main" type="submit">
            Trace this call
          </Act>
          <Act onClick={onClose}>Close</Act>
        </Flex>
      </Flex>
    </chakra.form>
  );
}
