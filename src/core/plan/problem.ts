import type { z } from 'zod';

/** Something wrong with what came in: where, a code for machines, a sentence for people (ARCHITECTURE principle 3). */
export interface InputError {
  code: string;
  /** where in the input, such as `extensions.12.digits`; empty for the whole of it */
  path: string;
  /** position in a text value, where that helps */
  offset?: number;
  sentence: string;
}

/** Zod's issues as errors of ours; sentences call a field by its title where `titleOf` knows one (by its path in what was read). */
export function inputErrors(
  error: z.ZodError,
  base = '',
  titleOf: (path: readonly PropertyKey[]) => string | undefined = () => undefined,
): InputError[] {
  return error.issues.map((issue) => {
    const path = [base, ...issue.path.map(String)].filter((p) => p !== '').join('.');
    const offset = 'params' in issue ? (issue.params as { offset?: number } | undefined)?.offset : undefined;
    return {
      code: issue.code === 'custom' ? 'invalid' : issue.code,
      path,
      ...(offset === undefined ? {} : { offset }),
      sentence: sentenceOf(issue, titleOf(issue.path) ?? path),
    };
  });
}

function sentenceOf(issue: z.core.$ZodIssue, path: string): string {
  const where = path === '' ? 'The input' : path;
  switch (issue.code) {
    case 'unrecognized_keys':
      return `${where} has ${issue.keys.map((k) => `“${k}”`).join(', ')}, which nothing reads; check the spelling or leave it out.`;
    case 'invalid_type':
      return issue.message.includes('received undefined')
        ? `${where} is missing; ${article(issue.expected)} is needed.`
        : `${where} is of the wrong type; ${article(issue.expected)} is needed.`;
    case 'invalid_value':
      return `${where} must be ${issue.values.map((v) => String(v)).join(' or ')}.`;
    case 'too_small':
    case 'too_big':
      return issue.message.startsWith('Too') ? `${where}: ${bound(issue)}.` : `${where} ${issue.message}.`;
    default:
      return issue.message.endsWith('.') ? issue.message : `${where} ${issue.message}.`;
  }
}

function bound(issue: z.core.$ZodIssueTooSmall | z.core.$ZodIssueTooBig): string {
  const limit = issue.code === 'too_small' ? `at least ${issue.minimum}` : `at most ${issue.maximum}`;
  const unit = issue.origin === 'array' ? ' entries' : issue.origin === 'string' ? ' characters' : '';
  return `${limit}${unit} is allowed`;
}

function article(type: string): string {
  return /^[aeiou]/.test(type) ? `an ${type}` : `a ${type}`;
}
