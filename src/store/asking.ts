import type { Asked, Question, Said } from '../engine/answered';
import { outside } from './outside';
import { useSession } from './session';

/** Asks the engine on a person's behalf. What stands in the way is said. @returns `null` where there is no answer */
export async function askOrSay<Q extends Question>(question: Q, ...args: Asked<Q>): Promise<Said<Q> | null> {
  const answer = await outside().engine.ask(question, ...args);
  if (answer.ok) return answer.value;
  if (answer.problem) useSession.setState({ problem: answer.problem });
  return null;
}
