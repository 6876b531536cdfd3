'use client';

import type { UseFormReturn } from 'react-hook-form';
import { SelectBox } from '@/ui/controls';
import { LanguageBox } from '@/workbench/language-box';
import { RefPicker } from '@/workbench/ref-picker';
import type { NewExtensionData, Typed } from './new-extension-data';
import { Field } from './new-extension-field';

/** What a joiner has and a mere phone has not: whom they are like, their team and language. */
export function JoinerFields({
  data,
  form,
  alike,
}: {
  data: NewExtensionData;
  form: UseFormReturn<Typed>;
  /** they are like somebody, who has these */
  alike: boolean;
}) {
  return (
    <>
      <Field form={form} name="sameAs" title="Same as">
        {({ value, change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
          <RefPicker
            {...rest}
            value={value || null}
            options={data.people}
            search={data.manyPeople ? 'person' : undefined}
            nullable
            placeholder="nobody in particular"
            onChange={(id) => change(id ?? '')}
          />
        )}
      </Field>
      {alike ? null : (
        <>
          <Field form={form} name="team" title="Team">
            {({ value, change, ...rest }) => (
              <SelectBox {...rest} value={value} onChange={(e) => change(e.target.value)}>
                <option value="">none yet</option>
                {data.teams.map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.label}
                  </option>
                ))}
              </SelectBox>
            )}
          </Field>
          <Field form={form} name="language" title="Language">
            {({ value, change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
              <LanguageBox {...rest} value={value} placeholder="the site’s" onChange={change} />
            )}
          </Field>
        </>
      )}
    </>
  );
}
