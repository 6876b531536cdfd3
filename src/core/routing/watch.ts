import type { Extension } from '../plan';
import type { Exchange } from '../exchange/exchange';

/** Whether one phone may show the line of another on a watch key (ENGINE E6), and which right says so or is missing. */
export function mayWatch(exchange: Exchange, watcher: Extension, watched: Extension): { may: boolean; why: string } {
  const cos = exchange.classes.get(watcher.class)!;
  const own = teamsOf(exchange, watcher);
  const theirs = teamsOf(exchange, watched);
  const answer = (may: boolean, because: string) => ({
    may,
    why: `Class ${cos.name} lets ${watcher.name} watch ${because}.`,
  });
  switch (cos.watch) {
    case 'nobody':
      return answer(false, 'nobody');
    case 'everyone':
      return answer(true, 'everyone');
    case 'own site':
      return answer(watcher.site === watched.site, 'the own site only');
    case 'own team':
      return answer(
        own.some((t) => theirs.includes(t)),
        'the own team only',
      );
    case 'list': {
      const named = watched.person !== null && cos.watchPeople.includes(watched.person);
      return answer(named || theirs.some((t) => cos.watchTeams.includes(t)), 'a list of people and teams only');
    }
  }
}

/** Teams of the person at an extension. */
export function teamsOf(exchange: Pick<Exchange, 'people'>, extension: Pick<Extension, 'person'>): readonly string[] {
  return (extension.person && exchange.people.get(extension.person)?.teams) || [];
}
