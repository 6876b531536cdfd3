import { readPlan, type Plan } from '@/core/plan';

/* A small plan for tests: two British sites and a Swedish one, written by hand so that each rule can be reached. */

const all = { allow: true, pin: false, forward: false };
const none = { allow: false, pin: false, forward: false };
const rights = {
  internal: all,
  service: all,
  local: all,
  national: { ...all, forward: true },
  mobile: all,
  freephone: all,
  international: { allow: true, pin: true, forward: false },
  private: all,
  unknown: all,
};

export function smallDocument() {
  return {
    format: 'polydrome-plan',
    version: 1,
    organisation: { name: 'Test' } as Record<string, unknown>,
    classes: [
      { id: 'staff', name: 'Staff', rights },
      { id: 'mute', name: 'Mute', rights: { internal: none } },
    ],
    sites: [
      {
        id: 'quay',
        name: 'Quay',
        country: 'GB',
        zone: 'Europe/London',
        area: '1632',
        outsidePrefix: '9',
        mainNumber: 'n100',
        emergencyTrunks: ['other', 'swede', 'main'],
        emergencyNotify: ['ann'],
        ladder: 'out',
      },
      {
        id: 'pier',
        name: 'Pier',
        country: 'GB',
        zone: 'Europe/London',
        outsidePrefix: '9',
        emergencyTrunks: ['swede'],
        ladder: 'out',
      },
      {
        id: 'kaj',
        name: 'Kaj',
        country: 'SE',
        zone: 'Europe/Stockholm',
        area: '31',
        outsidePrefix: '0',
        emergencyTrunks: ['swede'],
      },
    ] as Record<string, unknown>[],
    trunks: [
      {
        id: 'main',
        name: 'Main',
        kind: 'sip-peer',
        site: 'quay',
        channels: 4,
        keptForIncoming: 1,
        ownNumber: 'n100',
        deliveredLength: 11,
        deliveredForm: 'national',
      },
      { id: 'other', name: 'Other', kind: 'sip-peer', site: 'pier', channels: 2, codecs: ['G.729'], ownNumber: 'n300' },
      { id: 'swede', name: 'Swede', kind: 'sip-peer', site: 'kaj', channels: 2, writes: 'national' },
      {
        id: 'link',
        name: 'Link',
        kind: 'sip-peer',
        site: 'quay',
        channels: 2,
        deliveredForm: 'private',
        writes: 'private',
      },
    ] as Record<string, unknown>[],
    ladders: [{ id: 'out', name: 'Out' }],
    rungs: [
      {
        id: 'for-pier',
        ladder: 'out',
        position: 1,
        name: 'Pier only',
        map: '90800x{6}',
        forSites: ['pier'],
        strip: 1,
        trunks: ['other'],
      },
      {
        id: 'national',
        ladder: 'out',
        position: 2,
        name: 'National',
        map: '90[1-8]x{8,9}',
        strip: 1,
        notForPeople: ['bob'],
        trunks: ['main', 'other', 'swede'],
      },
      {
        id: 'abroad',
        ladder: 'out',
        position: 3,
        name: 'Abroad',
        map: '900[1-9]x{6,13}',
        strip: 3,
        reading: 'international',
        trunks: ['main'],
      },
      {
        id: 'odd',
        ladder: 'out',
        position: 4,
        name: 'Odd',
        map: '977x{2}',
        strip: 1,
        asDialled: true,
        show: 'hidden',
        trunks: ['main'],
      },
      {
        id: 'private',
        ladder: 'out',
        position: 5,
        name: 'Private',
        map: '70x{2}',
        reading: 'private',
        show: 'extension',
        trunks: ['link'],
      },
      {
        id: 'fixed',
        ladder: 'out',
        position: 6,
        name: 'Fixed',
        map: '9101',
        strip: 1,
        show: 'fixed',
        fixedNumber: 'n300',
        trunks: ['main'],
      },
      { id: 'none', ladder: 'out', position: 7, name: 'No trunk', map: '9118118', strip: 1, trunks: [] },
      { id: 'covered', ladder: 'out', position: 8, name: 'Covered', map: '901632x{6}', strip: 1, trunks: ['main'] },
    ] as Record<string, unknown>[],
    people: [
      { id: 'ann', name: 'Ann Ample', site: 'quay' },
      { id: 'bob', name: 'Bob Brisk', site: 'quay' },
    ],
    mailboxes: [
      { id: 'ann-box', name: 'Ann Ample', site: 'quay', owners: ['ann'] },
      { id: 'box', name: 'Night box', site: 'quay' },
    ],
    extensions: [
      { id: 'e1', digits: '2101', name: 'Ann Ample', person: 'ann', site: 'quay', class: 'staff', mailbox: 'ann-box' },
      {
        id: 'e2',
        digits: '2102',
        name: 'Bob Brisk',
        person: 'bob',
        site: 'quay',
        class: 'staff',
        withholdNumber: true,
      },
      { id: 'e3', digits: '2103', name: 'Lobby', kind: 'place', site: 'quay', class: 'mute', place: 'Front door' },
      { id: 'e4', digits: '2104', name: 'Virtual', kind: 'virtual', site: 'quay', class: 'staff' },
      {
        id: 'e5',
        digits: '3101',
        name: 'Pier desk',
        kind: 'place',
        site: 'pier',
        class: 'staff',
        outgoingNumber: 'n101',
      },
      { id: 'e6', digits: '4101', name: 'Kaj desk', kind: 'place', site: 'kaj', class: 'staff' },
      { id: 'e7', digits: '21', name: 'Short', kind: 'place', site: 'quay', class: 'staff' },
      { id: 'e8', digits: '3102', name: 'Pier bell', kind: 'place', site: 'pier', class: 'staff' },
    ] as Record<string, unknown>[],
    numbers: [
      { id: 'n100', e164: '+441632960100', site: 'quay', trunk: 'main' },
      { id: 'n101', e164: '+441632960101', site: 'quay', trunk: 'main', belongsTo: 'e1' },
      { id: 'n102', e164: '+441632960102', site: 'quay', trunk: 'main', state: 'reserved' },
      { id: 'n103', e164: '+441632960103', site: 'quay', trunk: 'main' },
      { id: 'n300', e164: '+441632960300', site: 'pier', trunk: 'other' },
      { id: 'n301', e164: '+441632960301', site: 'pier' },
    ] as Record<string, unknown>[],
    inboundRoutes: [
      {
        id: 'r-calling',
        position: 1,
        name: 'From Sweden',
        calledMap: '+44163296010x',
        callingMap: '+46x{6,12}',
        leadsTo: 'box',
      },
      { id: 'r-withheld', position: 2, name: 'Withheld', numbers: ['n101'], callingWithheld: true, leadsTo: 'box' },
      { id: 'r-main', position: 3, name: 'Main', numbers: ['n100'], trunk: 'main', leadsTo: 'e1' },
      { id: 'r-empty', position: 4, name: 'Nowhere', numbers: ['n300'] },
      { id: 'r-link', position: 5, name: 'From link', calledMap: 'x{3,14}', trunk: 'link', dialledExtension: true },
    ] as Record<string, unknown>[],
    numberAdditions: [{ id: 'fiction', from: '+441632960000', to: '+441632960999', country: 'GB', kind: 'national' }],
  };
}

/** The small plan, changed before it is read. Throws when the change made it unreadable. */
export function smallPlan(change: (document: ReturnType<typeof smallDocument>) => void = () => {}): Plan {
  const document = smallDocument();
  change(document);
  const read = readPlan(document);
  if (!read.ok) throw new Error(read.errors.map((e) => e.sentence).join('\n'));
  return read.plan;
}
