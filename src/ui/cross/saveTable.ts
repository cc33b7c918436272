import { askOrSay } from '../../store/asking';
import { tableAsked } from '../../store/cross';
import { useSession } from '../../store/session';
import { copyCells, pngOf } from '../frame/copy';
import { saveBlob } from '../handoff/download';

/** Saves the table that is shown, with what it is of. */
export async function saveTable(form: 'csv' | 'svg' | 'png'): Promise<void> {
  const asked = tableAsked();
  if (!asked) return;
  const name = [asked.down, asked.across, asked.within].filter(Boolean).join('_by_');
  const file = `${name.replace(/[^\p{L}\p{N}._-]+/gu, '_')}.${form}`;
  try {
    const text = await askOrSay('tableFile', asked, form === 'csv' ? 'csv' : 'svg');
    if (text === null) return;
    saveBlob(
      file,
      form === 'png'
        ? await pngOf(text)
        : new Blob([text], { type: form === 'csv' ? 'text/csv;charset=utf-8' : 'image/svg+xml' }),
    );
  } catch (cause) {
    useSession.setState({
      problem: { file, says: `could not be made (${(cause as Error).message}); try another form` },
    });
  }
}

/** Copies the table that is shown for a document, with what it is of. @returns what came of it */
export async function copyShown(): Promise<string> {
  const asked = tableAsked();
  const texts = asked && (await askOrSay('tableTexts', asked));
  if (!texts) return '';
  const copied = await copyCells(
    texts.map((row, r) => row.map((text, i) => ({ text, head: r === 0 || i === 0 }))),
  );
  return copied ? 'The table is copied, with what it is of.' : 'The browser did not let it be copied.';
}
