import { useSyncExternalStore } from 'react';
import { publishBench, publishPlaces } from './tokens';

/** How the pages look on this machine: as somebody chose, or as the machine itself wishes. */
export type Look = 'bright' | 'dark' | 'system';

const PLACES = 'knollfield-look';
const BENCH = 'knollfield-bench-theme';

const read = (place: string): string | null => {
  try {
    return localStorage.getItem(place);
  } catch {
    return null;
  }
};

function write(place: string, value: string): void {
  try {
    localStorage.setItem(place, value);
  } catch {
    // without a storage it holds as long as the page
  }
}

const wish = () => globalThis.matchMedia?.('(prefers-color-scheme: dark)');

let chosen: Look = 'system';
let listeners: (() => void)[] = [];

export const lookChosen = (): Look => chosen;

export const isDark = (): boolean =>
  chosen === 'dark' || (chosen === 'system' && (wish()?.matches ?? false));

/** Whether this tablet's bench is bright; it is dark where nobody has said so. */
export const benchIsBright = (): boolean => read(BENCH) === 'bright';

function publish(dark: boolean): void {
  publishPlaces(document.documentElement, dark);
  listeners.forEach((l) => l());
}

export function chooseLook(look: Look): void {
  chosen = look;
  write(PLACES, look);
  publish(isDark());
}

/** Makes this tablet's bench bright or dark from now on. */
export function setBench(bright: boolean): void {
  write(BENCH, bright ? 'bright' : 'dark');
  publishBench(document.documentElement, !bright);
}

/** Takes up what was chosen, follows the machine, and prints on white paper whatever the screen looks like. */
export function openLook(): void {
  const kept = read(PLACES);
  chosen = kept === 'bright' || kept === 'dark' ? kept : 'system';
  publish(isDark());
  publishBench(document.documentElement, !benchIsBright());
  wish()?.addEventListener('change', () => publish(isDark()));
  window.addEventListener('beforeprint', () => publish(false));
  window.addEventListener('afterprint', () => publish(isDark()));
}

/** Whether the pages are dark now; who uses it is drawn anew when that changes. */
export const useDark = (): boolean =>
  useSyncExternalStore((listener) => {
    listeners = [...listeners, listener];
    return () => {
      listeners = listeners.filter((l) => l !== listener);
    };
  }, isDark);
