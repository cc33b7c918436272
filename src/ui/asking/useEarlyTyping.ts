import { useEffect } from 'react';

/**
 * What is typed in a dialog before its field has the focus belongs into it.
 * @param id of the field @param enter what Enter does
 */
export function useEarlyTyping(
  shown: boolean,
  id: string,
  setTyped: (change: (now: string) => string) => void,
  enter: () => void,
): void {
  useEffect(() => {
    if (!shown) return;
    const early = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).id === id || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Enter') {
        // A button that has the focus is pressed by it.
        if ((event.target as HTMLElement).closest('[role=dialog] button')) return;
        enter();
      } else if (event.key.length === 1) setTyped((now) => now + event.key);
      else return;
      event.preventDefault();
      event.stopPropagation();
      document.getElementById(id)?.focus();
    };
    document.addEventListener('keydown', early, true);
    return () => document.removeEventListener('keydown', early, true);
  });
}
