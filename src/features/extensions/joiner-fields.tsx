'use client';

import { SelectBox, TextBox } from '@/ui/controls';
import { RefPicker } from '@/workbench/ref-picker';
import type { NewExtensionData, Typed } from './new-extension-data';
import { Field } from './new-extension-field';

/** What a joiner has and a mere phone has not: whom they are like, their team and language. */
export function JoinerFields({
  data,
  typed,
  put,
  errorOf,
}: {
  data: NewExtensionData;
  typed: Typed;
  put: (change: Partial<Typed>) => void;
  errorOf: (path: string) => string | null;
}) {
  return (
    <>
      <Field field="sameAs" title="Same as" error={errorOf('sameAs')}>
        {(common) => (
          <RefPicker
            {...common}
            value={typed.sameAs || null}
            options={data.people}
            search={data.manyPeople ? 'person' : undefined}
            nullable
            placeholder="nobody in particular"
            onChange={(id) => put({ sameAs: id ?? '' })}
          />
        )}
      </Field>
      {typed.sameAs ? null : (
        <>
          <Field field="team" title="Team" error={errorOf('teams')}>
            {(common) => (
              <SelectBox {...common} value={typed.team} onChange={(e) => put({ team: e.target.value })}>
                <option value="">none yet</option>
                {data.teams.map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.label}
                  </option>
                ))}
              </SelectBox>
            )}
          </Field>
          <Field field="language" title="Language" error={errorOf('language')}>
            {(common) => (
              <TextBox
                {...common}
                placeholder="the site’s"
                value={typed.language}
                onChange={(e) => put({ language: e.target.value })}
              />
            )}
          </Field>
        </>
      )}
    </>
  );
}
