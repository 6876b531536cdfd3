'use client';

import { useState } from 'react';
import type { ComponentProps } from 'react';
import { Combobox, Portal, createListCollection } from '@chakra-ui/react';
import { TextBox } from '@/ui/controls';
import { useSettled } from '@/ui/settled';
import { useAsked } from './use-asked';

const SEARCH_AFTER_MS = 120;

/** Who calls: an extension found by digits or name while it is typed, or anything else that can be asked from. */
export function PhoneBox({
  id,
  value,
  onChange,
  w,
  ...box
}: {
  id: string;
  value: string;
  onChange: (from: string) => void;
} & Omit<ComponentProps<typeof TextBox>, 'id' | 'value' | 'onChange'>) {
  const [open, setOpen] = useState(false);
  const text = useSettled(value.slice(0, 100), SEARCH_AFTER_MS);
  const { value: got } = useAsked('options', { params: { target: 'extension' }, query: { text } }, { keep: true });
  const phones = (got?.options ?? []).slice(0, 12).map((o) => ({ label: o.label, digits: o.label.split(' ')[0]! }));
  const collection = createListCollection({
    items: phones,
    itemToString: (p) => p.digits,
    itemToValue: (p) => p.digits,
  });
  return (
    <Combobox.Root
      ids={{ input: id }}
      w={w}
      collection={collection}
      open={open && phones.length > 0}
      onOpenChange={(d) => setOpen(d.open)}
      value={[]}
      inputValue={value}
      onInputValueChange={(d) => d.reason === 'input-change' && onChange(d.inputValue)}
      onValueChange={(d) => d.value[0] && onChange(d.value[0])}
      // Whatever else calls can come from is typed: a number outside, a name, `withheld`.
      allowCustomValue
      selectionBehavior="preserve"
      positioning={{ sameWidth: false, gutter: 2 }}
      lazyMount
      unmountOnExit
    >
      <Combobox.Control minH="32px">
        <Combobox.Input asChild>
          <TextBox h="32px" minH="32px" px="8px" borderColor="fieldLine" rounded="4px" bg="raised" {...box} />
        </Combobox.Input>
      </Combobox.Control>
      <Portal>
        <Combobox.Positioner>
          <Combobox.Content bg="raised" border="1px solid" borderColor="fieldLine" rounded="4px" shadow="none" p="3px">
            {phones.map((p) => (
              <Combobox.Item key={p.digits} item={p} px="8px" py="4px" rounded="3px" fontSize="14px">
                {p.label}
              </Combobox.Item>
            ))}
          </Combobox.Content>
        </Combobox.Positioner>
      </Portal>
    </Combobox.Root>
  );
}
