'use client';

import localforage from 'localforage';
import { useEffect, useState } from 'react';

export const LOOKS = ['system', 'light', 'dark'] as const;
export type Look = (typeof LOOKS)[number];

const settings = localforage.createInstance({ name: 'dig-first-settings' });

/** Light or dark: as the system says, or as the person chose; remembered. */
export function useLook(): [Look, (look: Look) => void] {
  const [look, setLook] = useState<Look>('system');
  useEffect(() => {
    settings.getItem('look').then(
      (kept) => setLook(LOOKS.find((known) => known === kept) ?? 'system'),
      () => undefined,
    );
  }, []);
  useEffect(() => {
    const dark = matchMedia('(prefers-color-scheme: dark)');
    const apply = (): void => {
      document.documentElement.dataset.bsTheme = look === 'system' ? (dark.matches ? 'dark' : 'light') : look;
    };
    apply();
    dark.addEventListener('change', apply);
    return () => dark.removeEventListener('change', apply);
  }, [look]);
  return [
    look,
    (chosen) => {
      setLook(chosen);
      // Only the colours: where storage is refused they last as long as the tab.
      settings.setItem('look', chosen).catch(() => undefined);
    },
  ];
}

/** A width that the person set, remembered under a name. */
export function useKeptWidth(name: string, usual: number): [number, (width: number) => void] {
  const [width, setWidth] = useState(usual);
  useEffect(() => {
    settings.getItem(name).then(
      (kept) => typeof kept === 'number' && setWidth(kept),
      () => undefined,
    );
  }, [name]);
  return [
    width,
    (chosen) => {
      setWidth(chosen);
      settings.setItem(name, chosen).catch(() => undefined);
    },
  ];
}
