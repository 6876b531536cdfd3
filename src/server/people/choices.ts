import { draftPlan } from '../draft/store';
import { optionsFor } from '../options';

/** People and destinations to choose from, without one person; long lists are found by typing. */
export async function peopleChoices(without: string | null = null) {
  const { plan } = await draftPlan();
  const { options, long } = optionsFor(plan, ['person', 'destination']);
  return {
    people: options.person!.filter((o) => o.id !== without),
    destinations: options.destination!,
    many: long.length > 0,
  };
}
