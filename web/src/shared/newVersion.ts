import { useSyncExternalStore } from 'react';
import { registerSW } from 'virtual:pwa-register';

/** How often a page that stays open asks for a newer version, ms. */
const ASK_AGAIN = 30 * 60_000;

/** A version found this soon after the page was opened is taken at once: nobody has typed anything yet, ms. */
const JUST_OPENED = 2_000;

let ready = false;
let touched = false;
const told = new Set<() => void>();
let take: (reload?: boolean) => Promise<void> = async () => {};

/** Begins to keep the page itself on this machine; where the address is not one a browser trusts, nothing happens. */
export function keepThePage(): void {
  const opened = performance.now();
  const touch = () => (touched = true);
  ['pointerdown', 'keydown'].forEach((e) => window.addEventListener(e, touch, { once: true }));
  take = registerSW({
    immediate: true,
    onNeedRefresh: () => {
      if (!touched && performance.now() - opened < JUST_OPENED) {
        void take(true);
        return;
      }
      ready = true;
      told.forEach((t) => t());
    },
    onRegisteredSW: (_, worker) => {
      if (worker) setInterval(() => void worker.update().catch(() => undefined), ASK_AGAIN);
    },
  });
}

/** True where a newer version of the pages waits; taking it opens the page anew. */
export function useNewVersion(): { waits: boolean; take: () => void } {
  const waits = useSyncExternalStore(
    (changed) => {
      told.add(changed);
      return () => told.delete(changed);
    },
    () => ready,
  );
  return { waits, take: () => void take(true) };
}
