'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { ComponentProps, ReactNode } from 'react';
import type { FieldPathValue, FieldValues, Path, PathValue, UseFormReturn } from 'react-hook-form';
import { SelectBox, TextBox, TickBox } from '@/ui/controls';
import { DigitsBox } from '@/ui/digits-box';
import type { Option } from './form-data';
import { FormField, type FormControl } from './form-field';

/** The fields of one form, made by their names: each with its label, its note and what is wrong with it. */
export interface FormFields<T extends FieldValues> {
  /** a field whose control is given */
  field: <P extends Path<T>>(
    name: P,
    title: string,
    draw: (control: FormControl<FieldPathValue<T, P>>) => ReactNode,
    wrong?: string | null,
  ) => ReactNode;
  /** text of one line; `wrong` is said while it is typed */
  text: (
    name: Path<T>,
    title: string,
    box?: Omit<ComponentProps<typeof TextBox>, 'name' | 'value' | 'onChange'>,
    wrong?: string | null,
  ) => ReactNode;
  /** digits as they are dialled */
  digits: (name: Path<T>, title: string) => ReactNode;
  /** yes or no, with what it says */
  tick: (name: Path<T>, words: ReactNode, more?: ReactNode) => ReactNode;
  /** one of a short list; `none` is what stands for nothing */
  select: (name: Path<T>, title: string, options: readonly Option[], none?: string) => ReactNode;
}

/** Makes the fields of a form. Their ids begin with `prefix`; notes stand in the pane, or `beneath` the field. */
export function formFields<T extends FieldValues>(
  form: UseFormReturn<T>,
  {
    prefix,
    notes = {},
    beneath = false,
  }: { prefix: string; notes?: Partial<Record<string, string>>; beneath?: boolean },
): FormFields<T> {
  const field: FormFields<T>['field'] = (name, title, draw, wrong) => (
    <FormField
      form={form}
      name={name}
      title={title}
      id={`${prefix}-${name.replaceAll('.', '-')}`}
      note={beneath ? undefined : notes[name]}
      more={{ error: wrong, hint: beneath ? notes[name] : undefined }}
    >
      {draw}
    </FormField>
  );
  const put = <P extends Path<T>>(change: (value: PathValue<T, P>) => void, value: string) =>
    change(value as PathValue<T, P>);
  return {
    field,
    text: (name, title, box, wrong) =>
      field(
        name,
        title,
        ({ change, ...rest }) => <TextBox {...box} {...rest} onChange={(e) => put(change, e.target.value)} />,
        wrong,
      ),
    digits: (name, title) =>
      field(name, title, ({ change, ...rest }) => <DigitsBox {...rest} onChange={(next) => put(change, next)} />),
    tick: (name, words, more) =>
      field(name, '', ({ change, value, ...rest }) => (
        <Box>
          <Flex as="label" gap="8px" align="center" minH="28px">
            <TickBox
              type="checkbox"
              {...rest}
              checked={Boolean(value)}
              onChange={(e) => change(e.target.checked as PathValue<T, Path<T>>)}
            />
            <span>{words}</span>
          </Flex>
          {more ? (
            <Box pl="24px" fontSize="13px" color="quiet">
              {more}
            </Box>
          ) : null}
        </Box>
      )),
    select: (name, title, options, none) =>
      field(name, title, ({ change, ...rest }) => (
        <SelectBox {...rest} onChange={(e) => put(change, e.target.value)}>
          {none === undefined ? null : <option value="">{none}</option>}
          {options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.label}
            </option>
          ))}
        </SelectBox>
      )),
  };
}
