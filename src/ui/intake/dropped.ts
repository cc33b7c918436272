'use client';

import { useEffect, useState } from 'react';
import { useSession } from '../../store/session';

/** Files that were dropped anywhere on the page; each drop is a new list. */
export function useDroppedFiles(): File[] {
  const [files, setFiles] = useState<File[]>([]);
  useEffect(() => {
    const over = (event: DragEvent): void => event.preventDefault();
    const drop = (event: DragEvent): void => {
      event.preventDefault();
      const found = [...(event.dataTransfer?.files ?? [])];
      if (found.length === 0 || useSession.getState().reading) return;
      useSession.setState({ station: 'intake' });
      setFiles(found);
    };
    document.addEventListener('dragover', over);
    document.addEventListener('drop', drop);
    return () => {
      document.removeEventListener('dragover', over);
      document.removeEventListener('drop', drop);
    };
  }, []);
  return files;
}
