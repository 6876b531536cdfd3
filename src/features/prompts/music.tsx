'use client';

import { Box, Grid } from '@chakra-ui/react';
import type { FieldFacts } from '@/core/plan';
import { PartTitle, Wrong } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { ConflictPanel } from '@/workbench/conflict-panel';
import { useEdits, useTitles } from '@/workbench/edits';
import type { Option } from '@/workbench/form-data';
import { RefPicker } from '@/workbench/ref-picker';

/** Where callers wait: a site, or a queue with music of its own. */
export interface MusicPlace {
  kind: 'site' | 'queue';
  object: { id: string; music: string | null };
  rowVersion: number;
  label: string;
  /** of a queue: what is heard where it has none of its own */
  site: string | null;
  canEdit: boolean;
}

export interface MusicData {
  places: MusicPlace[];
  prompts: Option[];
  field: FieldFacts;
}

/** What callers hear while they wait, by site and queue, chosen in one list. */
export function Music({ data }: { data: MusicData }) {
  const musicOf = new Map(data.places.map((p) => [p.object.id, p.object.music]));
  return (
    <Box as="section" aria-label="Music while they wait" mt="26px" maxW="900px" data-testid="music">
      <PartTitle>Music while they wait</PartTitle>
      {data.places.map((p) => (
        <Place
          key={p.object.id}
          data={data}
          place={p}
          inherited={p.site === null ? null : (musicOf.get(p.site) ?? null)}
        />
      ))}
    </Box>
  );
}

function Place({ data, place, inherited }: { data: MusicData; place: MusicPlace; inherited: string | null }) {
  const { pathOf } = useKinds();
  const titles = useTitles([data.field]);
  const edit = useEdits().of({ ...place, titles });
  const path = pathOf(place.kind, place.object.id);
  const wrong = edit.general ?? edit.errorOf('music');
  const named = data.prompts.find((p) => p.id === inherited)?.label;
  return (
    <Box borderBottom="1px solid" borderColor="line" py="4px">
      <ConflictPanel edit={edit} fields={[data.field]} options={{ prompt: data.prompts }} />
      <Grid
        templateColumns={{ base: '20px minmax(0, 1fr)', md: '20px minmax(0, 1fr) 320px' }}
        gap="10px"
        alignItems="center"
        minH="34px"
      >
        <Glyph kind={place.kind} />
        <span>{path ? <Link href={path}>{place.label}</Link> : place.label}</span>
        <Box gridColumn={{ base: '2', md: 'auto' }}>
          <RefPicker
            kind="prompt"
            aria-label={`Music of ${place.label}`}
            data-field="music"
            value={(edit.value.music as string | null) ?? null}
            nullable
            disabled={!place.canEdit}
            placeholder={place.kind === 'site' ? 'silence' : named ? `as its site: ${named}` : 'silence, as its site'}
            options={data.prompts}
            onChange={(id) => edit.choose('music', id)}
          />
        </Box>
      </Grid>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
