'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useForm } from 'react-hook-form';
import { Act } from '@/ui/controls';
import { formFields } from './form-fields';
import { PhoneBox } from './phone-box';

interface Question {
  from: string;
  dial: string;
  at: string;
}

/** Who calls, what they dial, and when; without a moment it is asked of now. */
export function QuestionForm({
  prefix,
  question,
  dial,
  act,
  onAsk,
}: {
  /** of the ids of its fields */
  prefix: string;
  question: Question;
  /** how the field of what is dialled is called */
  dial: string;
  act: string;
  onAsk: (question: Question) => void;
}) {
  const form = useForm({ values: question });
  const { field, text } = formFields(form, { prefix });
  const ask = form.handleSubmit((q) => onAsk({ ...q, at: q.at || 'now' }));
  return (
    <chakra.form mb="14px" onSubmit={(e) => void ask(e)}>
      <Flex gap="10px" align="flex-end" wrap="wrap">
        <Box flex="1" minW="130px" maxW="230px">
          {field('from', 'From', ({ change, ...rest }) => (
            <PhoneBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box flex="1" minW="130px" maxW="230px">
          {text('dial', dial, { fontFamily: 'mono' })}
        </Box>
        <Box w="150px">{text('at', 'When')}</Box>
        <Act look="main" type="submit" h="32px">
          {act}
        </Act>
      </Flex>
    </chakra.form>
  );
}
