'use client';

import { LanguageBox } from '@/workbench/language-box';
import { RefPicker } from '@/workbench/ref-picker';
import type { FormFields } from '@/workbench/form-fields';
import type { NewExtensionData, Typed } from './new-extension-data';

/** What a joiner has and a mere phone has not: whom they are like, their team and language. */
export function JoinerFields({
  data,
  fields: { field, select },
  alike,
}: {
  data: NewExtensionData;
  fields: FormFields<Typed>;
  /** they are like somebody, who has these */
  alike: boolean;
}) {
  return (
    <>
      {field('sameAs', 'Same as', ({ value, change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
        <RefPicker
          {...rest}
          value={value || null}
          options={data.people}
          search={data.manyPeople ? 'person' : undefined}
          nullable
          placeholder="nobody in particular"
          onChange={(id) => change(id ?? '')}
        />
      ))}
      {alike ? null : (
        <>
          {select('team', 'Team', data.teams, 'none yet')}
          {field('language', 'Language', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
            <LanguageBox {...rest} placeholder="the site’s" onChange={change} />
          ))}
        </>
      )}
    </>
  );
}
