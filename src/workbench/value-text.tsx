import { Box } from '@chakra-ui/react';
import type { Option } from './form-data';

/** A field's value for people, in any of its forms. */
export function ValueText({ value, options }: { value: unknown; options?: Option[] }) {
  return <Box as="span">{valueWords(value, options)}</Box>;
}

/** A field’s value as text: references by name. */
export function valueWords(value: unknown, options?: Option[]): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map((v) => valueWords(v, options)).join(', ');
  if (typeof value === 'object') return structureText(value as Record<string, unknown>);
  return options?.find((o) => o.id === value)?.label ?? String(value);
}

function structureText(value: Record<string, unknown>): string {
  if ('from' in value && 'to' in value) return `${String(value.from)} to ${String(value.to)}`;
  if ('version' in value) return `version ${String(value.version)}`;
  const allowed = Object.entries(value).filter(([, r]) => (r as { allow?: boolean }).allow);
  return allowed.length === 0
    ? 'nothing allowed'
    : allowed
        .map(
          ([k, r]) =>
            `${k}${(r as { pin?: boolean }).pin ? ' with PIN' : ''}${(r as { forward?: boolean }).forward ? ', forward' : ''}`,
        )
        .join('; ');
}
