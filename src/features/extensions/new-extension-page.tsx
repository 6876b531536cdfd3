'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { Wrong } from '@/ui/controls';
import { PaneSection, Workspace } from '@/ui/workspace';
import { MadePanel } from './made-panel';
import type { NewExtensionData } from './new-extension-data';
import { NewExtensionForm } from './new-extension-form';

/** One short act: digits, name, mailbox with PIN, a number; the SIP password is made. */
export function NewExtensionPage({ data, joiner = false }: { data: NewExtensionData; joiner?: boolean }) {
  const [made, setMade] = useState<{ id: string; digits: string; name: string } | null>(null);
  return (
    <Workspace
      title={joiner ? 'Add joiner' : 'Add extension'}
      lead="A strong SIP password is made with it. Everything lands in the draft; live stays as it is until you go live."
      pane={
        <PaneSection title="What comes with it">
          <Box mb="6px">
            A person of the same name, a mailbox with its PIN, and a SIP password of 20 letters and digits.
          </Box>
          <Box color="quiet">
            Enter in any field adds it. What you type stays here if you leave the page, but for the PIN.
          </Box>
        </PaneSection>
      }
    >
      {made ? (
        <MadePanel made={made} onNext={() => setMade(null)} />
      ) : data.canEdit ? (
        <NewExtensionForm data={data} joiner={joiner} onMade={setMade} />
      ) : (
        <Wrong>You look at the plan; an administrator can add extensions.</Wrong>
      )}
    </Workspace>
  );
}
