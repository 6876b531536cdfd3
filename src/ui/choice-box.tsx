'use client';

import { Box, Combobox, Portal, chakra, createListCollection } from '@chakra-ui/react';
import { Check, ChevronDown, X } from 'lucide-react';
import { Glyph } from './glyph';
import { useLabelOf } from './label-of';
import { settling } from './settling';
import { useTypeOver } from './type-over';
import { useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react';

/** Something to choose: by `id`, shown as `label`; `more` is what else it may be found by. */
export interface Choice {
  id: string;
  label: string;
  more?: string;
  /** its kind, where its glyph is to be shown */
  kind?: string;
}

export interface ChoiceProps {
  id?: string;
  value: string | null;
  /** the label of the value, where the choices don't have it */
  label?: string;
  choices: readonly Choice[];
  nullable: boolean;
  disabled?: boolean;
  placeholder?: string;
  /** what stands where nothing fits */
  none?: ReactNode;
  /** finds more choices than are here */
  find?: (text: string) => Promise<readonly Choice[]>;
  onType?: (text: string) => void;
  onChange: (id: string | null) => void;
  onFocus?: () => void;
  'aria-label'?: string;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
  'data-field'?: string;
}

const MOST_SHOWN = 100;

const words = (text: string) => text.toLowerCase().split(/\s+/).filter(Boolean);

/** The choices whose label (or what else they go by) has every word; those that begin with the text first. */
export function fitting(choices: readonly Choice[], text: string): Choice[] {
  const wanted = words(text);
  const begins = (c: Choice) => c.label.toLowerCase().startsWith(text.trim().toLowerCase());
  const fit = choices.filter((c) => {
    const known = `${c.label} ${c.more ?? ''}`.toLowerCase();
    return wanted.every((w) => known.includes(w));
  });
  return [...fit.filter(begins), ...fit.filter((c) => !begins(c))];
}

/** What a text that was left means: the choice of that very name, or the only one that fits; null: none, or more than one. */
export function meant(choices: readonly Choice[], text: string): Choice | null {
  const exact = choices.filter((c) => c.label.toLowerCase() === text.trim().toLowerCase());
  if (exact.length === 1) return exact[0]!;
  const fit = fitting(choices, text);
  return fit.length === 1 ? fit[0]! : null;
}

/**
 * Chooses one of many by typing, with arrow keys or the pointer. A text that is left without a choice chooses what it can only
 * mean; else the old value stands again, and that is said.
 */
export function ChoiceBox({
  value,
  label,
  choices,
  nullable,
  disabled,
  placeholder,
  none,
  find,
  onType,
  onChange,
  onFocus,
  ...input
}: ChoiceProps) {
  const [text, setText] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const typed = useRef<string | null>(null);
  const current = label ?? choices.find((c) => c.id === value)?.label ?? '';
  const box = useRef<HTMLInputElement>(null);
  const named = useLabelOf(box, input['aria-label']);
  useTypeOver(box);
  // What stands in the box is what is typed or chosen, also after the list has closed without a choice. It is put there with the
  // drawing itself: later, it would undo a letter that came meanwhile.
  useLayoutEffect(() => {
    const wanted = text ?? current;
    if (box.current && box.current.value !== wanted) box.current.value = wanted;
  });
  const shown = useMemo(() => (text === null ? choices : fitting(choices, text)).slice(0, MOST_SHOWN), [choices, text]);
  const collection = useMemo(
    () => createListCollection({ items: shown, itemToString: (c) => c.label, itemToValue: (c) => c.id }),
    [shown],
  );
  const put = (next: string | null) => {
    typed.current = null;
    setText(null);
    setSaid(null);
    if (next !== value) onChange(next);
  };
  const type = (next: string) => {
    typed.current = next;
    setText(next);
    setSaid(null);
    onType?.(next);
  };
  const leave = async () => {
    const left = typed.current;
    if (left === null) return;
    if (left.trim() === '') return nullable ? put(null) : put(value);
    const known = meant(choices, left) ?? (find ? meant(await find(left), left) : null);
    // Something else was typed while it was looked for.
    if (typed.current !== left) return;
    if (known) return put(known.id);
    put(value);
    setSaid(
      `“${left.trim()}” is no single one of the list; ${current === '' ? 'nothing is chosen' : `it stays ${current}`}.`,
    );
  };
  return (
    <Box>
      <Combobox.Root
        collection={collection}
        value={value === null ? [] : [value]}
        inputValue={text ?? current}
        onInputValueChange={(d) => d.reason === 'input-change' && type(d.inputValue)}
        onValueChange={(d) => put(d.value[0] ?? null)}
        // Chosen again what stood there: its name stands in the box again.
        onSelect={(d) => d.itemValue === value && put(value)}
        inputBehavior="autohighlight"
        selectionBehavior="preserve"
        openOnClick
        disabled={disabled}
        placeholder={placeholder}
        positioning={{ sameWidth: false, gutter: 2 }}
        lazyMount
        unmountOnExit
      >
        <Combobox.Control minH="32px">
          <Combobox.Input
            {...input}
            ref={box}
            h="32px"
            minH="32px"
            ps="8px"
            pe={nullable && value !== null ? '52px' : '28px'}
            bg="raised"
            borderColor={input['aria-invalid'] ? 'brick' : 'fieldLine'}
            rounded="4px"
            fontSize="14px"
            _focusVisible={{ outline: '2px solid', outlineColor: 'plum', outlineOffset: '1px' }}
            onFocus={onFocus}
            onBlur={() => settling(leave())}
            onKeyDown={(e) => {
              if (e.key === 'Escape') put(value);
            }}
          />
          <Combobox.IndicatorGroup pe="6px" gap="2px" h="32px">
            {nullable && value !== null && !disabled ? (
              <chakra.button
                type="button"
                tabIndex={-1}
                aria-label={`Choose nothing for ${named}`}
                onClick={() => put(null)}
              >
                <X size={14} />
              </chakra.button>
            ) : null}
            <Combobox.Trigger aria-label={`Show the list of ${named}`} w="20px" h="20px">
              <ChevronDown size={14} />
            </Combobox.Trigger>
          </Combobox.IndicatorGroup>
        </Combobox.Control>
        <Portal>
          <Combobox.Positioner>
            <Combobox.Content
              bg="raised"
              border="1px solid"
              borderColor="fieldLine"
              rounded="4px"
              shadow="none"
              minW="var(--reference-width)"
              maxW="420px"
              maxH="320px"
              p="3px"
              fontSize="14px"
            >
              <Combobox.Empty color="quiet" px="8px" py="6px">
                {choices.length === 0 && none
                  ? none
                  : text
                    ? `Nothing is called “${text}”.`
                    : (none ?? 'Nothing is there.')}
              </Combobox.Empty>
              {shown.map((c) => (
                <Combobox.Item key={c.id} item={c} px="8px" py="4px" rounded="3px" gap="8px">
                  {c.kind ? <Glyph kind={c.kind} /> : null}
                  <Combobox.ItemText>{c.label}</Combobox.ItemText>
                  <Combobox.ItemIndicator ms="auto">
                    <Check size={14} />
                  </Combobox.ItemIndicator>
                </Combobox.Item>
              ))}
            </Combobox.Content>
          </Combobox.Positioner>
        </Portal>
      </Combobox.Root>
      {said ? (
        <Box role="status" color="brick" fontSize="13px" mt="3px">
          {said}
        </Box>
      ) : null}
    </Box>
  );
}
