import { deskOf } from './desk';
import { refreshKept } from './keeping';
import { removedElsewhere, renamedHere, replacedElsewhere } from './opening';
import { outside, type Message } from './outside';
import { openStandingRules } from './standing';

/** What other windows of this program do shows here at once. */
export function followOtherWindows(): void {
  outside().windows.hear((message) => void heard(message));
}

export async function heard(message: Message): Promise<void> {
  switch (message.kind) {
    case 'entries':
      return deskOf(message.id)?.book.heard(message.entries, message.next);
    case 'removed':
      removedElsewhere(message.id);
      return refreshKept();
    case 'replaced':
      await refreshKept();
      return replacedElsewhere(message.id, message.by);
    case 'renamed':
      return renamedHere(message.id, message.name);
    case 'listed':
      return refreshKept();
    case 'standing':
      await openStandingRules();
  }
}
