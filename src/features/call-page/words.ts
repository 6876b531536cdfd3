import type { PhraseLanguage } from '@/core/plan/facts/phrases';

/** What a public page says, in its language. */
interface Words {
  open: string;
  closed: string;
  openUntil: (when: string) => string;
  opensAt: (when: string) => string;
  /** the same of a person */
  reached: string;
  away: string;
  reachedFrom: (when: string) => string;
  wait: (minutes: number) => string;
  call: (number: string) => string;
  wish: string;
  number: string;
  name: string;
  consent: (name: string) => string;
  ask: string;
  asked: (number: string) => string;
  typeNumber: string;
  needConsent: string;
}

const WORDS: Record<PhraseLanguage, Words> = {
  en: {
    open: 'Open now',
    closed: 'Closed now',
    openUntil: (when) => `until ${when}`,
    opensAt: (when) => `we open ${when}`,
    reached: 'Can be reached now',
    away: 'Can’t be reached now',
    reachedFrom: (when) => `can be reached from ${when}`,
    wait: (m) => `Callers wait about ${m} ${m === 1 ? 'minute' : 'minutes'}.`,
    call: (n) => `Call ${n}`,
    wish: 'Let us call you',
    number: 'Your telephone number',
    name: 'Your name (if you like)',
    consent: (name) => `${name} may keep this number until I was called.`,
    ask: 'Call me back',
    asked: (n) => `We call ${n}.`,
    typeNumber: 'Type the number that we may call.',
    needConsent: 'Tick this, else we may not keep the number.',
  },
  sv: {
    open: 'Öppet nu',
    closed: 'Stängt nu',
    openUntil: (when) => `till ${when}`,
    opensAt: (when) => `vi öppnar ${when}`,
    reached: 'Går att nå nu',
    away: 'Går inte att nå nu',
    reachedFrom: (when) => `går att nå från ${when}`,
    wait: (m) => `Väntetiden är ungefär ${m} ${m === 1 ? 'minut' : 'minuter'}.`,
    call: (n) => `Ring ${n}`,
    wish: 'Låt oss ringa dig',
    number: 'Ditt telefonnummer',
    name: 'Ditt namn (om du vill)',
    consent: (name) => `${name} får spara numret tills jag har blivit uppringd.`,
    ask: 'Ring mig',
    asked: (n) => `Vi ringer ${n}.`,
    typeNumber: 'Skriv numret som vi får ringa.',
    needConsent: 'Kryssa här, annars får vi inte spara numret.',
  },
  de: {
    open: 'Jetzt geöffnet',
    closed: 'Jetzt geschlossen',
    openUntil: (when) => `bis ${when}`,
    opensAt: (when) => `wir öffnen ${when}`,
    reached: 'Jetzt erreichbar',
    away: 'Jetzt nicht erreichbar',
    reachedFrom: (when) => `erreichbar ab ${when}`,
    wait: (m) => `Die Wartezeit beträgt etwa ${m} ${m === 1 ? 'Minute' : 'Minuten'}.`,
    call: (n) => `${n} anrufen`,
    wish: 'Wir rufen Sie an',
    number: 'Ihre Telefonnummer',
    name: 'Ihr Name (wenn Sie möchten)',
    consent: (name) => `${name} darf diese Nummer behalten, bis ich angerufen wurde.`,
    ask: 'Rufen Sie mich an',
    asked: (n) => `Wir rufen ${n} an.`,
    typeNumber: 'Geben Sie die Nummer ein, die wir anrufen dürfen.',
    needConsent: 'Bitte ankreuzen, sonst dürfen wir die Nummer nicht behalten.',
  },
};

/** The words of the nearest language that there is. */
export const wordsIn = (tag: string): Words =>
  WORDS[(tag.toLowerCase().split('-')[0] ?? '') as PhraseLanguage] ?? WORDS.en;
