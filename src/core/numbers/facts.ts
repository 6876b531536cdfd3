import type { KNOWN_COUNTRIES } from './known-countries';
/**
 * Short numbers by country: what they are and, where known, what they cost the caller.
 * Sources: 112 after Directive (EU) 2018/1972 article 109; 116xxx after Commission Decision 2007/116/EC; the others after
 * the national numbering plans that the regulators file with ITU-T (Operational Bulletin, national numbering plans, E.129).
 */
export interface CountryFacts {
  emergency: readonly string[];
  /** code of a marked test call to the emergency service, where the country has one */
  emergencyTest?: string;
  /** digit maps of short service numbers with their tariff */
  service: readonly { map: string; name: string; tariff: 'free' | 'ordinary' | 'special' }[];
}

const HARMONISED = { map: '116xxx', name: 'harmonised service of social value', tariff: 'free' } as const;

const FACTS: Readonly<Record<(typeof KNOWN_COUNTRIES)[number], CountryFacts>> = {
  AT: {
    emergency: ['112', '122', '133', '144'],
    service: [HARMONISED, { map: '118xxx', name: 'directory enquiries', tariff: 'special' }],
  },
  AU: { emergency: ['000', '112'], service: [{ map: '13xxxx', name: 'local rate service', tariff: 'ordinary' }] },
  BE: { emergency: ['112', '100', '101'], service: [HARMONISED] },
  BG: { emergency: ['112'], service: [HARMONISED] },
  BR: { emergency: ['190', '192', '193'], service: [{ map: '1[05]x', name: 'public service', tariff: 'ordinary' }] },
  CA: { emergency: ['911'], service: [{ map: '[2-8]11', name: 'public service', tariff: 'ordinary' }] },
  CH: { emergency: ['112', '117', '118', '144'], service: [{ map: '143|147', name: 'helpline', tariff: 'free' }] },
  CY: { emergency: ['112', '199'], service: [HARMONISED] },
  CZ: { emergency: ['112', '150', '155', '156', '158'], service: [HARMONISED] },
  DE: {
    emergency: ['112', '110'],
    service: [
      { map: '115', name: 'public administration', tariff: 'ordinary' },
      HARMONISED,
      { map: '118xx', name: 'directory enquiries', tariff: 'special' },
    ],
  },
  DK: {
    emergency: ['112'],
    service: [{ map: '114|1813', name: 'police, medical helpline', tariff: 'ordinary' }, HARMONISED],
  },
  EE: { emergency: ['112'], service: [HARMONISED] },
  ES: {
    emergency: ['112', '091', '061'],
    service: [HARMONISED, { map: '118xx', name: 'directory enquiries', tariff: 'special' }],
  },
  FI: { emergency: ['112'], service: [HARMONISED] },
  FR: {
    emergency: ['112', '15', '17', '18'],
    service: [HARMONISED, { map: '118xxx', name: 'directory enquiries', tariff: 'special' }],
  },
  GB: {
    emergency: ['999', '112'],
    service: [
      { map: '101|105|111|119', name: 'police, power cut, health', tariff: 'free' },
      HARMONISED,
      { map: '118xxx', name: 'directory enquiries', tariff: 'special' },
      { map: '123', name: 'speaking clock', tariff: 'special' },
    ],
  },
  GR: {
    emergency: ['112', '100', '166', '199'],
    service: [HARMONISED, { map: '118xx', name: 'directory enquiries', tariff: 'special' }],
  },
  HK: { emergency: ['999', '112'], service: [{ map: '1081|1083', name: 'directory enquiries', tariff: 'ordinary' }] },
  HR: { emergency: ['112', '192', '193', '194'], service: [HARMONISED] },
  HU: { emergency: ['112', '104', '105', '107'], service: [HARMONISED] },
  IE: {
    emergency: ['112', '999'],
    service: [HARMONISED, { map: '118xx', name: 'directory enquiries', tariff: 'special' }],
  },
  IL: {
    emergency: ['112', '100', '101', '102'],
    service: [{ map: '144', name: 'directory enquiries', tariff: 'special' }],
  },
  IN: {
    emergency: ['112', '100', '101', '108'],
    service: [{ map: '1098', name: 'helpline for children', tariff: 'free' }],
  },
  IS: { emergency: ['112'], service: [HARMONISED] },
  IT: { emergency: ['112', '113', '115', '118'], service: [HARMONISED] },
  JP: {
    emergency: ['110', '118', '119'],
    service: [{ map: '104|117|177', name: 'enquiries, time, weather', tariff: 'ordinary' }],
  },
  KR: {
    emergency: ['112', '119'],
    service: [{ map: '114|120|131', name: 'enquiries, city, weather', tariff: 'ordinary' }],
  },
  LT: { emergency: ['112'], service: [HARMONISED] },
  LU: {
    emergency: ['112', '113'],
    service: [HARMONISED, { map: '118xx', name: 'directory enquiries', tariff: 'special' }],
  },
  LV: {
    emergency: ['112', '110', '113'],
    service: [HARMONISED, { map: '118x{0,1}', name: 'directory enquiries', tariff: 'special' }],
  },
  MT: {
    emergency: ['112'],
    service: [HARMONISED, { map: '1182|1187', name: 'directory enquiries', tariff: 'special' }],
  },
  MX: { emergency: ['911'], service: [{ map: '0[345]0', name: 'time, repairs, enquiries', tariff: 'ordinary' }] },
  NL: { emergency: ['112'], service: [HARMONISED, { map: '18xx', name: 'directory enquiries', tariff: 'special' }] },
  NO: {
    emergency: ['110', '112', '113'],
    service: [{ map: '02800|116117', name: 'police, medical helpline', tariff: 'ordinary' }],
  },
  NZ: {
    emergency: ['111'],
    service: [
      { map: '105', name: 'police, not urgent', tariff: 'free' },
      { map: '018', name: 'directory enquiries', tariff: 'special' },
    ],
  },
  PL: { emergency: ['112', '997', '998', '999'], service: [HARMONISED] },
  PT: { emergency: ['112'], service: [HARMONISED] },
  RO: { emergency: ['112'], service: [HARMONISED] },
  SE: {
    emergency: ['112'],
    service: [
      { map: '1177', name: 'health', tariff: 'ordinary' },
      { map: '11313|11414', name: 'crisis information, police', tariff: 'ordinary' },
      HARMONISED,
      { map: '118xxx', name: 'directory enquiries', tariff: 'special' },
    ],
  },
  SG: { emergency: ['995', '999'], service: [{ map: '1777', name: 'ambulance, not urgent', tariff: 'ordinary' }] },
  SI: {
    emergency: ['112', '113'],
    service: [HARMONISED, { map: '118x', name: 'directory enquiries', tariff: 'special' }],
  },
  SK: { emergency: ['112', '150', '155', '158'], service: [HARMONISED] },
  TR: { emergency: ['112'], service: [{ map: '118xx', name: 'directory enquiries', tariff: 'special' }] },
  UA: {
    emergency: ['112', '101', '102', '103'],
    service: [{ map: '116xxx', name: 'harmonised service of social value', tariff: 'free' }],
  },
  US: {
    emergency: ['911'],
    emergencyTest: '933',
    service: [{ map: '[2-8]11', name: 'public service', tariff: 'ordinary' }],
  },
  ZA: {
    emergency: ['112', '10111', '10177'],
    service: [{ map: '1023', name: 'directory enquiries', tariff: 'ordinary' }],
  },
};
export const COUNTRY_FACTS: Readonly<Record<string, CountryFacts>> = FACTS;
