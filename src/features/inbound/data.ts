import type { FieldFacts, RouteRule } from '@/core/plan';
import type { ObjectPageData, Option } from '@/workbench/form-data';

/** The time rules of a route and what they may name. */
export interface RouteRulesData {
  /** the route */
  id: string;
  name: string;
  /** where a place that is made here belongs */
  site: string | null;
  rules: { value: RouteRule; rowVersion: number; mark: 'new' | 'changed' | null }[];
  ruleFields: FieldFacts[];
  choices: { options: Record<string, Option[]>; long: readonly string[] };
}

/** Everything that the page of an inbound route shows. */
export interface InboundRouteData extends Pick<RouteRulesData, 'rules' | 'ruleFields' | 'choices' | 'site'> {
  data: ObjectPageData;
  zone: string | null;
  /** a number that comes here */
  dial: string | null;
  trunks: Option[];
}
