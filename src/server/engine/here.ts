import { askHere } from '.';
import { Ground } from './ground/held';
import { answerHere, type Question } from './ground/question';
import { QUESTIONS } from './questions';

/** Makes this process answer its own questions: it holds draft and live itself. */
export function holdPlansHere(): Ground {
  const ground = new Ground();
  askHere((name, input, { at }) =>
    answerHere(ground, QUESTIONS[name] as unknown as Question<unknown, unknown>, input, at),
  );
  return ground;
}
