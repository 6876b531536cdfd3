import { draftPlan } from '../draft';

/** What bulk changes may choose from. */
export async function bulkOptions() {
  const { plan } = await draftPlan();
  const options = (list: readonly { id: string; name: string }[]) => list.map((o) => ({ id: o.id, label: o.name }));
  return { classes: options(plan.classes), teams: options(plan.teams), prompts: options(plan.prompts) };
}
