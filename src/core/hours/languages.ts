/** The words of opening times in one language; days from Monday on. */
export interface HoursWords {
  days: readonly string[];
  and: string;
  never: string;
  always: string;
  everyDay: string;
  allDay: string;
  fromTo(from: string, to: string): string;
  nextDay(time: string): string;
  closedOn(holidays: number): string;
  otherTimes(dates: number): string;
}

const dash = (from: string, to: string) => `${from}–${to}`;

const LANGUAGES: Readonly<Record<string, HoursWords>> = {
  en: {
    days: ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'],
    and: 'and',
    never: 'Never open',
    always: 'Always open',
    everyDay: 'Every day',
    allDay: 'all day',
    fromTo: (from, to) => `${from} to ${to}`,
    nextDay: (time) => `${time} the next day`,
    closedOn: (n) => `closed on ${n === 1 ? 'one holiday' : `${n} holidays`}`,
    otherTimes: (n) => `other times on ${n === 1 ? 'one date' : `${n} dates`}`,
  },
  sv: {
    days: ['måndagar', 'tisdagar', 'onsdagar', 'torsdagar', 'fredagar', 'lördagar', 'söndagar'],
    and: 'och',
    never: 'Aldrig öppet',
    always: 'Alltid öppet',
    everyDay: 'Varje dag',
    allDay: 'hela dagen',
    fromTo: dash,
    nextDay: (time) => `${time} nästa dag`,
    closedOn: (n) => `stängt ${n === 1 ? 'en helgdag' : `${n} helgdagar`}`,
    otherTimes: (n) => `andra tider ${n === 1 ? 'en dag' : `${n} dagar`}`,
  },
  de: {
    days: ['montags', 'dienstags', 'mittwochs', 'donnerstags', 'freitags', 'samstags', 'sonntags'],
    and: 'und',
    never: 'Nie geöffnet',
    always: 'Immer geöffnet',
    everyDay: 'Täglich',
    allDay: 'ganztägig',
    fromTo: (from, to) => `${from} bis ${to}`,
    nextDay: (time) => `${time} am nächsten Tag`,
    closedOn: (n) => `geschlossen an ${n === 1 ? 'einem Feiertag' : `${n} Feiertagen`}`,
    otherTimes: (n) => `andere Zeiten an ${n === 1 ? 'einem Tag' : `${n} Tagen`}`,
  },
  fr: {
    days: ['lundi', 'mardi', 'mercredi', 'jeudi', 'vendredi', 'samedi', 'dimanche'],
    and: 'et',
    never: 'Jamais ouvert',
    always: 'Toujours ouvert',
    everyDay: 'Tous les jours',
    allDay: 'toute la journée',
    fromTo: (from, to) => `${from} à ${to}`,
    nextDay: (time) => `${time} le lendemain`,
    closedOn: (n) => `fermé ${n === 1 ? 'un jour férié' : `${n} jours fériés`}`,
    otherTimes: (n) => `autres horaires ${n === 1 ? 'un jour' : `${n} jours`}`,
  },
  nl: {
    days: ['maandag', 'dinsdag', 'woensdag', 'donderdag', 'vrijdag', 'zaterdag', 'zondag'],
    and: 'en',
    never: 'Nooit open',
    always: 'Altijd open',
    everyDay: 'Elke dag',
    allDay: 'de hele dag',
    fromTo: (from, to) => `${from} tot ${to}`,
    nextDay: (time) => `${time} de volgende dag`,
    closedOn: (n) => `gesloten op ${n === 1 ? 'één feestdag' : `${n} feestdagen`}`,
    otherTimes: (n) => `andere tijden op ${n === 1 ? 'één dag' : `${n} dagen`}`,
  },
  es: {
    days: ['lunes', 'martes', 'miércoles', 'jueves', 'viernes', 'sábados', 'domingos'],
    and: 'y',
    never: 'Nunca abierto',
    always: 'Siempre abierto',
    everyDay: 'Todos los días',
    allDay: 'todo el día',
    fromTo: (from, to) => `${from} a ${to}`,
    nextDay: (time) => `${time} del día siguiente`,
    closedOn: (n) => `cerrado ${n === 1 ? 'un festivo' : `${n} festivos`}`,
    otherTimes: (n) => `otro horario ${n === 1 ? 'un día' : `${n} días`}`,
  },
};

/** The words of a language (RFC 5646), by its first part; English where it is not known here. A sentence begins with a capital. */
export function wordsIn(language: string): HoursWords {
  return LANGUAGES[language.toLowerCase().split('-')[0]!] ?? LANGUAGES.en!;
}
