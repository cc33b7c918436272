import { begin } from './opening';
import { keepWhatIsFound } from './finding';
import { outside } from './outside';
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

const SECRET = /^#start=([\w-]+)$/;
/** Takes the secret of this start out of the address, so that it stands in no history and on no picture, and keeps it. */
function takeSecret(): void {
  const secret = SECRET.exec(window.location.hash)?.[1];
  if (secret === undefined) return;
  window.history.replaceState(null, '', window.location.pathname + window.location.search);
  // Where it cannot be kept a database says what to do.
  void outside()
    .storage.keepStartSecret(secret)
    .catch(() => undefined);
}

/** Starts the session of this page, once. @returns what takes its listening to the page back */
export function startSession(): () => void {
  const warn = (event: BeforeUnloadEvent): void => {
    if (wouldLose()) event.preventDefault();
  };
  window.addEventListener('beforeunload', warn);
  window.addEventListener('hashchange', takeSecret);
  takeSecret();
  if (!started) {
    started = true;
    followOtherWindows();
    keepPosition();
    keepWhatIsFound();
    watchEngine();
    void begin();
  }
  return () => {
    window.removeEventListener('beforeunload', warn);
    window.removeEventListener('hashchange', takeSecret);
  };
}
