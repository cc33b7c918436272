import { begin } from './opening';
import { keepWhatIsFound } from './finding';
import { keepPosition } from './position';
import { useSession } from './session';
import { watchEngine } from './trouble';
import { followOtherWindows } from './windows';

let started = false;

/** Whether closing the page now would lose something that was decided. */
const wouldLose = (): boolean => {
  const { opened, keeping } = useSession.getState();
  return opened !== null && keeping.state !== 'kept';
};

/** Starts the session of this page, once. @returns what takes its listening to the page back */
export function startSession(): () => void {
  const warn = (event: BeforeUnloadEvent): void => {
    if (wouldLose()) event.preventDefault();
  };
  window.addEventListener('beforeunload', warn);
  if (!started) {
    started = true;
    followOtherWindows();
    keepPosition();
    keepWhatIsFound();
    watchEngine();
    void begin();
  }
  return () => window.removeEventListener('beforeunload', warn);
}
