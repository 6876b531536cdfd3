'use client';

import { chakra } from '@chakra-ui/react';
import { useRef } from 'react';
import { Act } from './controls';

/** A button that takes a file from the reader's computer; the same file may be taken again. */
export function FileAct({
  label,
  accept,
  children,
  onFile,
}: {
  /** what the file is called for who can't see the button */
  label: string;
  accept: string;
  children: string;
  onFile: (file: File) => void;
}) {
  const box = useRef<HTMLInputElement>(null);
  return (
    <>
      <Act onClick={() => box.current?.click()}>{children}</Act>
      <chakra.input
        ref={box}
        type="file"
        accept={accept}
        aria-label={label}
        srOnly
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </>
  );
}

const MOST_SAID = 8;

/** Sentences about what a file could not carry: the first few, and how many more. */
export function NotCarried({ list }: { list: readonly string[] }) {
  return (
    <chakra.div color="quiet">
      {list.slice(0, MOST_SAID).map((s, i) => (
        <chakra.div key={i}>· {s}</chakra.div>
      ))}
      {list.length > MOST_SAID ? <div>and {list.length - MOST_SAID} more</div> : null}
    </chakra.div>
  );
}
