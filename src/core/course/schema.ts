import { z } from 'zod';
import type { LandingKind } from '../exchange/answer';

export type CourseKind = 'caller' | 'trunk' | 'rule' | 'refused' | LandingKind;

const node = z.strictObject({
  id: z.string(),
  kind: z.string() as z.ZodType<CourseKind>,
  label: z.string(),
  detail: z.string(),
  /** true: a place where the call can end; these stand in one column at the right */
  end: z.boolean(),
});
export type CourseNode = z.output<typeof node>;

const way = z.strictObject({
  from: z.string(),
  to: z.string(),
  when: z.string(),
  /** on the way that the call takes */
  walked: z.boolean(),
});
export type CourseWay = z.output<typeof way>;

/** The course of one traced call: what it passes, where it ends, and what follows when nobody answers. */
export const courseSchema = z.strictObject({ nodes: z.array(node), ways: z.array(way) });
export type Course = z.output<typeof courseSchema>;
