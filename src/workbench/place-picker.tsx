'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { lazy, Suspense, useState, type ComponentProps } from 'react';
import { Act } from '@/ui/controls';
import { RefPicker } from './ref-picker';

/** It is seldom opened: it comes when it is. */
const MakePlace = lazy(() => import('./make-place').then((m) => ({ default: m.MakePlace })));

/** Chooses where calls are led, by glyph, digits and name; what is missing is made on the spot and chosen at once. */
export function PlacePicker({
  site,
  disabled,
  ...picker
}: Omit<ComponentProps<typeof RefPicker>, 'search'> & { long: boolean; site: string | null }) {
  const { long, ...rest } = picker;
  const [making, setMaking] = useState(false);
  const [made, setMade] = useState<{ id: string; label: string } | null>(null);
  const options = made && !rest.options.some((o) => o.id === made.id) ? [...rest.options, made] : rest.options;
  return (
    <Box minW={0}>
      <Flex gap="4px">
        <Box flex="1" minW={0}>
          <RefPicker {...rest} options={options} disabled={disabled} search={long ? 'destination' : undefined} />
        </Box>
        {disabled ? null : (
          <Act
            px="7px"
            h="32px"
            aria-label={`Make a place for ${rest['aria-label'] ?? 'it'}`}
            title="Make what is missing"
            aria-expanded={making}
            onClick={() => setMaking(!making)}
          >
            <Plus size={16} aria-hidden />
          </Act>
        )}
      </Flex>
      {making ? (
        <Suspense fallback={<Box minH="70px" />}>
          <MakePlace
            site={site}
            onClose={() => setMaking(false)}
            onMade={(id, name) => {
              setMaking(false);
              setMade({ id, label: name });
              rest.onChange(id, name);
            }}
          />
        </Suspense>
      ) : null}
    </Box>
  );
}
