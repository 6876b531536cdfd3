import type { FieldFacts, ReachStep } from '@/core/plan';
import type { ObjectPageData, Option } from '@/workbench/form-data';

export interface StepShown {
  value: ReachStep;
  rowVersion: number;
  mark: 'new' | 'changed' | null;
}

/** Everything that the page of a reach plan shows. */
export interface ReachPlanData {
  data: ObjectPageData;
  steps: StepShown[];
  stepFields: FieldFacts[];
  choices: { options: Record<string, Option[]>; long: readonly string[] };
  /** the extensions that are looked for by it */
  whose: Option[];
}
