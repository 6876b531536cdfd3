import type { z } from 'zod';
import type { planSchema } from '@/core/plan';

import { ATTENDANTS, GREETINGS } from './attendants';

type Draft = z.input<typeof planSchema>;
type Input<K extends keyof Draft> = NonNullable<Draft[K]> extends (infer T)[] ? T : never;

/* What calls of the demo company are led to beside people's phones, and the codes that are dialled: all of it begins with 6 or a star. */

const NQ = 'north-quay';

export const PROMPTS: Input<'prompts'>[] = [
  {
    id: 'prompt-sailing',
    name: 'Sailing status, winter',
    text: 'All sailings leave on time today. The next ferry to Västra Kajen leaves at half past six in the evening.',
    seconds: 9,
  },
  {
    id: 'prompt-storm',
    name: 'Storm: terminals closed',
    text: 'Because of the storm our terminals are closed tonight. No ferry sails before six in the morning.',
    seconds: 8,
  },
  {
    id: 'prompt-name',
    name: 'Spell a name',
    text: 'Spell the name of the person with the letters on your keys.',
    seconds: 4,
  },
];

export const PLACES = {
  ...ATTENDANTS,
  prompts: [...PROMPTS, ...GREETINGS],
  announcements: [
    {
      id: 'sailing-status',
      name: 'Sailing status',
      site: NQ,
      digits: '6400',
      prompt: 'prompt-sailing',
      leadsTo: 'e-2000',
    },
    { id: 'storm-told', name: 'Storm, told and ended', site: NQ, prompt: 'prompt-storm' },
  ],
  directories: [
    {
      id: 'staff-by-name',
      name: 'Staff by name',
      site: NQ,
      digits: '6300',
      prompt: 'prompt-name',
      otherwise: 'e-2000',
    },
  ],
  conferences: [
    { id: 'harbour-masters', name: 'Harbour masters', site: NQ, digits: '6100', mostMembers: 12 },
    { id: 'freight-round', name: 'Freight morning round', site: 'freight-hamburg', digits: '6140' },
  ],
  pageGroups: [
    {
      id: 'page-terminal',
      name: 'Terminal loudspeakers',
      site: NQ,
      digits: '6200',
      members: ['e-2135', 'e-2136', 'e-2137'],
    },
  ],
  faxes: [
    {
      id: 'fax-hamburg',
      name: 'Customs fax, Hamburg',
      site: 'freight-hamburg',
      digits: '6472',
      email: 'customs@lanternfold.example',
    },
  ],
  outsideNumbers: [
    { id: 'crew-night', name: 'Crew duty, night mobile', site: NQ, dial: '907700900123', class: 'staff' },
    { id: 'engineer-mobile', name: 'Duty engineer, mobile', site: NQ, dial: '907700900124', class: 'staff' },
  ],
  reachPlans: [{ id: 'reach-engineer', name: 'Control room, or the duty engineer', site: NQ, end: 'm-2143' }],
  reachSteps: [
    { id: 'reach-engineer-1', reachPlan: 'reach-engineer', position: 10, extension: 'e-2170', seconds: 15 },
    {
      id: 'reach-engineer-2',
      reachPlan: 'reach-engineer',
      position: 20,
      outside: 'engineer-mobile',
      seconds: 20,
      hours: 'crew-day',
      when: 'closed' as const,
      note: 'By day the engineer is on site.',
    },
    {
      id: 'reach-engineer-3',
      reachPlan: 'reach-engineer',
      position: 30,
      withPrevious: true,
      extension: 'e-2143',
      seconds: 20,
    },
  ],
  parkPlaces: [1, 2, 3, 4].map((n) => ({
    id: `park-${n}`,
    name: `Park place ${n}`,
    site: NQ,
    digits: `680${n}`,
    returnSeconds: 90,
    returnTo: 'e-2000',
  })),
  tones: [{ id: 'engaged', name: 'Engaged, for nuisance calls', site: NQ, tone: 'busy' as const }],
  timeSwitches: [
    {
      id: 'crew-duty',
      name: 'Crew duty line',
      site: NQ,
      digits: '6500',
      hours: 'crew-day',
      open: 'e-2124',
      closed: 'crew-night',
      note: 'Day desk by day, the night mobile by night.',
    },
    {
      id: 'customs-manifests',
      name: 'Customs manifests',
      site: NQ,
      digits: '6501',
      fax: true,
      hours: 'freight-hours',
      open: 'fax-hamburg',
      closed: 'e-2171',
      note: 'By day to Hamburg, by night to North Quay, without a word.',
    },
  ],
  serviceCodes: [
    { id: 'code-mailbox', name: 'Own mailbox', site: NQ, digits: '*1', service: 'mailbox' as const },
    { id: 'code-pick-up', name: 'Pick up in the team', site: NQ, digits: '*2', service: 'pick up' as const },
    {
      id: 'code-pick-up-desks',
      name: 'Pick up at the terminal desks',
      site: NQ,
      digits: '*22',
      service: 'pick up' as const,
      phones: ['e-2135', 'e-2136', 'e-2137', 'e-2138'],
    },
    {
      id: 'code-withhold',
      name: 'Hide the number for this call',
      site: NQ,
      digits: '*31',
      service: 'withhold number' as const,
    },
    { id: 'code-desk-in', name: 'Sign in at this desk', site: NQ, digits: '*41', service: 'hot-desk sign-in' as const },
    {
      id: 'code-desk-out',
      name: 'Sign out at this desk',
      site: NQ,
      digits: '*42',
      service: 'hot-desk sign-out' as const,
    },
    {
      id: 'code-crew',
      name: 'Crew duty: day, night, by hours',
      site: NQ,
      digits: '*65',
      service: 'time-switch set' as const,
      timeSwitch: 'crew-duty',
    },
    {
      id: 'code-status',
      name: 'Record the sailing status',
      site: NQ,
      digits: '*64',
      service: 'record a prompt' as const,
      prompt: 'prompt-sailing',
    },
    ...[1, 2, 3, 4].flatMap((n) => [
      {
        id: `code-park-${n}`,
        name: `Park on ${n}`,
        site: NQ,
        digits: `*8${n}`,
        service: 'park' as const,
        parkPlace: `park-${n}`,
      },
      {
        id: `code-fetch-${n}`,
        name: `Fetch from ${n}`,
        site: NQ,
        digits: `#8${n}`,
        service: 'fetch' as const,
        parkPlace: `park-${n}`,
      },
    ]),
  ],
} satisfies Partial<Draft>;
