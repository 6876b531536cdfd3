'use client';

import { Menu, Portal, chakra } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { call } from '@/workbench/api';

/** Who is signed in, and what concerns only them. */
export default function AccountMenu({ name, onKeys }: { name: string; onKeys: () => void }) {
  const router = useRouter();
  const choose = async (what: string) => {
    if (what === 'settings') return router.push('/settings');
    if (what === 'keys') return onKeys();
    await call('signOut');
    window.location.assign('/sign-in');
  };
  return (
    <Menu.Root onSelect={(d) => void choose(d.value)} positioning={{ placement: 'bottom-end' }} lazyMount unmountOnExit>
      <Menu.Trigger asChild>
        <chakra.button
          type="button"
          display={{ base: 'none', md: 'inline-flex' }}
          alignItems="center"
          gap="4px"
          color="quiet"
          fontSize="13px"
        >
          {name} <ChevronDown size={13} aria-hidden />
        </chakra.button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="raised" border="1px solid" borderColor="fieldLine" rounded="4px" shadow="none" p="3px">
            <Menu.Item value="settings">Settings</Menu.Item>
            <Menu.Item value="keys">Keys on this screen</Menu.Item>
            <Menu.Item value="out">Sign out</Menu.Item>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
