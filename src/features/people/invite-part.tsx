'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';

/** Something that a person set themselves and holds now. */
export interface OwnSet {
  what: string;
  since: string;
  until: string | null;
}

/** What somebody set on the page of their own, and how they get one: mails somebody the link to the page of their own. */
export function InvitePart({
  person,
  email,
  may,
  set,
}: {
  person: string;
  email: string | null;
  may: boolean;
  set: readonly OwnSet[];
}) {
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState<{ to: string; until: string } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const invite = async () => {
    setBusy(true);
    const done = await call('invite', { params: { id: person } });
    setBusy(false);
    setSent(done.ok ? done.value : null);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
  };
  return (
    <Box>
      {set.map((s) => (
        <Box key={`${s.what} ${s.since}`} mb="4px" data-testid="own-set">
          {s.what},{' '}
          <Box as="span" color="quiet" fontSize="13px">
            since <Time iso={s.since} />
            {s.until ? (
              <>
                {' '}
                until <Time iso={s.until} />
              </>
            ) : null}
          </Box>
        </Box>
      ))}
      <Box color="quiet" fontSize="13px" mb="8px">
        There they set where calls find them, their greeting and PIN, and hear their messages. The mail has a link that
        opens it once, within a week. Sent again, the link before opens nothing, and password and second factor are
        chosen anew.
      </Box>
      <Act disabled={!may || busy || email === null} onClick={() => void invite()}>
        Send the link{email ? ` to ${email}` : ''}
      </Act>
      {email === null ? (
        <Box fontSize="13px" mt="4px">
          An e-mail address comes first.
        </Box>
      ) : null}
      {sent ? (
        <Box role="status" color="pine" fontSize="13px" mt="4px">
          A mail is on its way to {sent.to}; its link holds until <Time iso={sent.until} />.
        </Box>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
