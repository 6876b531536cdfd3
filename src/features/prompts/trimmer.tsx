'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState } from 'react';
import WaveSurfer from 'wavesurfer.js';
import Regions, { type Region } from 'wavesurfer.js/dist/plugins/regions.js';
import type { SoundKnown } from '@/contract/sounds';
import { Act, Labelled, Wrong } from '@/ui/controls';
import { FigureBox } from '@/ui/figure-box';
import { addressOf, call } from '@/workbench/api';

/** The wave of a sound with the part that is kept, dragged at its ends or typed; fades at both ends. */
export function Trimmer({
  sound,
  onCut,
  onClose,
}: {
  sound: string;
  onCut: (cut: Pick<SoundKnown, 'id' | 'seconds'>) => void;
  onClose: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const region = useRef<Region | null>(null);
  const wave = useRef<WaveSurfer | null>(null);
  const [kept, setKept] = useState<{ from: number; to: number } | null>(null);
  const [fades, setFades] = useState({ fadeIn: 0, fadeOut: 0 });
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    const style = getComputedStyle(box.current!);
    const regions = Regions.create();
    const made = WaveSurfer.create({
      container: box.current!,
      height: 84,
      waveColor: style.getPropertyValue('--wave'),
      progressColor: style.getPropertyValue('--heard'),
      cursorColor: style.getPropertyValue('--heard'),
      url: addressOf('sound', { params: { id: sound }, query: {} }),
      plugins: [regions],
    });
    wave.current = made;
    const show = (r: Region) => setKept({ from: round(r.start), to: round(r.end) });
    made.on('ready', (seconds) => {
      region.current = regions.addRegion({
        start: 0,
        end: seconds,
        color: style.getPropertyValue('--kept'),
        drag: false,
      });
      show(region.current);
    });
    made.on('error', () => setWrong('The sound can’t be drawn here.'));
    regions.on('region-update', show);
    return () => made.destroy();
  }, [sound]);
  const set = (next: { from: number; to: number }) => {
    setKept(next);
    region.current?.setOptions({ start: next.from, end: next.to });
  };
  const cut = async () => {
    setBusy(true);
    const made = await call('cutSound', { params: { id: sound }, body: { ...kept!, ...fades } });
    setBusy(false);
    if (made.ok) onCut({ id: made.value.id, seconds: made.value.seconds });
    else setWrong(made.errors[0]!.sentence);
  };
  return (
    <Box border="1px solid" borderColor="plum" rounded="4px" p="12px" mb="10px" data-testid="trimmer">
      <Box
        ref={box}
        minH="84px"
        css={{
          '--wave': 'var(--chakra-colors-field-line)',
          '--heard': 'var(--chakra-colors-plum)',
          '--kept': 'rgba(139, 74, 147, 0.2)',
        }}
      />
      <Flex gap="12px" mt="10px" wrap="wrap" align="flex-end">
        {kept ? (
          <>
            <Second title="From" value={kept.from} onChange={(from) => set({ ...kept, from })} />
            <Second title="To" value={kept.to} onChange={(to) => set({ ...kept, to })} />
          </>
        ) : null}
        <Second title="Fades in over" value={fades.fadeIn} onChange={(fadeIn) => setFades({ ...fades, fadeIn })} />
        <Second title="Fades out over" value={fades.fadeOut} onChange={(fadeOut) => setFades({ ...fades, fadeOut })} />
        <Act disabled={!kept} onClick={() => region.current?.play()}>
          Play this part
        </Act>
        <Act look="main" disabled={!kept || busy} onClick={() => void cut()}>
          {busy ? 'Cutting …' : 'Keep this part'}
        </Act>
        <Act onClick={onClose}>Leave it as it is</Act>
      </Flex>
      {wrong ? (
        <Box mt="8px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}

const round = (seconds: number) => Math.round(seconds * 100) / 100;

function Second({ title, value, onChange }: { title: string; value: number; onChange: (seconds: number) => void }) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Box>
      <Labelled title={title} htmlFor={id}>
        <FigureBox
          id={id}
          title={title}
          unit="s"
          w="86px"
          value={typed ?? String(value)}
          onChange={(text) => {
            setTyped(text);
            if (text.trim() !== '' && Number.isFinite(Number(text))) onChange(Math.max(0, Number(text)));
          }}
          onLeave={() => setTyped(null)}
        />
      </Labelled>
    </Box>
  );
}
