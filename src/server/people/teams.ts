import { OBJECTS, referrersOf } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { applyEdits, asEdit, draftPlan, type EditResult } from '../draft';
import { ledgerPage } from '../ledger-page';
import { objectPage } from '../object-page';
import { peopleChoices } from './choices';

/** The teams with how many people of which sites, and what names them besides. */
export async function teamsData() {
  const { plan } = await draftPlan();
  const referrers = referrersOf(plan, new Set(plan.teams.map((t) => t.id)));
  const sites = new Map(plan.sites.map((s) => [s.id, s.name]));
  return ledgerPage(
    'team',
    (t) => {
      const people = plan.people.filter((p) => p.teams.includes(t.id));
      const others = (referrers.get(t.id) ?? []).filter((r) => r.kind !== 'person');
      return {
        name: t.name,
        people: String(people.length),
        sites: [...new Set(people.map((p) => sites.get(p.site)))].join(', '),
        used: [...new Set(others.map((r) => OBJECTS[r.kind].word))].join(', '),
      };
    },
    ['name'],
  );
}

/** One team with its people. */
export async function teamPage(id: string) {
  const data = await objectPage('team', id);
  const { plan } = await draftPlan();
  const sites = new Map(plan.sites.map((s) => [s.id, s.name]));
  const { people, many } = await peopleChoices();
  return {
    data,
    people,
    many,
    members: plan.people
      .filter((p) => p.teams.includes(id))
      .map((p) => ({
        id: p.id,
        name: p.name,
        site: sites.get(p.site)!,
        digits: plan.extensions.find((e) => e.person === p.id)?.digits ?? '',
      }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  };
}

/** Puts a person into a team or takes them out. */
export async function setMember(actor: Actor, team: string, person: string, member: boolean): Promise<EditResult> {
  demand(actor, 'edit');
  const draft = await draftPlan();
  const who = draft.plan.people.find((p) => p.id === person);
  if (!who || !draft.plan.teams.some((t) => t.id === team))
    throw new Refused(404, 'no-such-object', 'There is no such team or person.');
  if (who.teams.includes(team) === member) throw new Refused(409, 'nothing-to-do', 'It is so already.');
  const teams = member ? [...who.teams, team] : who.teams.filter((t) => t !== team);
  return applyEdits(actor, [asEdit('person', person, draft.rowVersions.get(person) ?? null, { ...who, teams })]);
}
