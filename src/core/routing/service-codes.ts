import { agentsOfQueue, type Extension, type ServiceCode } from '../plan';
import { REFUSED, UNREACHABLE } from '../exchange/cause';
import type { Ending, Landing } from '../exchange/answer';
import { nameOf } from '../exchange/exchange';
import { ending, refTo, type Run } from './run';
import { walk } from './walk';

/** What dialling a service code does (ENGINE E11); withholding and test emergency calls are handled where they are dialled. */
export function serviceCall(run: Run, code: ServiceCode, extension: Extension): Ending {
  const object = refTo('serviceCode', code);
  const base = { rule: code.id, kind: 'internal' as const };
  const said = (sentence: string) => run.step('service', 'service', sentence, { object, in: code.digits });
  const done = (label: string): Ending => {
    const lands: Landing = { kind: 'tone', id: code.id, digits: code.digits, label };
    return ending({ ...base, outcome: 'routed', lands });
  };
  const called = (id: string | null) => nameOf(run.exchange, id);
  switch (code.service) {
    case 'mailbox':
      if (!extension.mailbox) {
        said(`${extension.name} has no mailbox to listen to.`);
        return ending({ ...base, outcome: 'failed', cause: UNREACHABLE });
      }
      said(`${code.digits} opens the own mailbox, with its PIN.`);
      return ending({
        ...base,
        outcome: 'routed',
        lands: { kind: 'mailbox', id: extension.mailbox, digits: null, label: called(extension.mailbox) },
      });
    case 'park':
      said(`The call at hand is parked on ${called(code.parkPlace)}.`);
      return {
        ...walk(
          run,
          { type: 'destination', id: code.parkPlace! },
          { trunk: null, calling: null, phone: extension, site: extension.site },
        ),
        ...base,
      };
    case 'fetch':
      said(`The call parked on ${called(code.parkPlace)} is fetched.`);
      return done(`fetches from ${called(code.parkPlace)}`);
    case 'queue sign-in':
    case 'queue sign-out':
    case 'queue pause': {
      const queue = run.exchange.plan.queues.find((q) => q.id === code.queue)!;
      if (!agentsOfQueue(queue).includes(extension.id)) {
        said(`${extension.name} is no agent of ${queue.name}.`);
        return ending({ ...base, outcome: 'failed', cause: UNREACHABLE });
      }
      said(`${extension.name}: ${code.service} at ${queue.name}.`);
      return done(`${code.service}, ${queue.name}`);
    }
    case 'pick up': {
      if (code.phones.length > 0 && !code.phones.includes(extension.id)) {
        said(`${extension.name} is not in the pick-up group of ${code.name}.`);
        return ending({ ...base, outcome: 'refused', cause: REFUSED });
      }
      const whose = code.phones.length > 0 ? code.name : `the own team of ${extension.name}`;
      said(`A call that rings at another phone of ${whose} is taken here.`);
      return done(`picks up, ${whose}`);
    }
    case 'time-switch set':
      said(`${called(code.timeSwitch)} is set: open, closed, by its hours, one after the other.`);
      return done(`sets ${called(code.timeSwitch)}`);
    case 'record a prompt':
      said(`${called(code.prompt)} is recorded.`);
      return done(`records ${called(code.prompt)}`);
    default:
      said(`${code.name}: ${code.service}.`);
      return done(code.service);
  }
}
