import { useEffect } from 'react';

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    ['combobox', 'slider'].includes(target.getAttribute('role') ?? '') ||
    target.closest('.ant-modal, .ant-picker-dropdown') !== null);

const OFF = 'knollfield.single-keys-off';

/** Whether single keys act on this machine; some tools speak or type in single letters (WCAG 2.1.4). */
export const singleKeys = () => localStorage.getItem(OFF) === null;

export function setSingleKeys(on: boolean): void {
  if (on) localStorage.removeItem(OFF);
  else localStorage.setItem(OFF, 'off');
}

/** Single keys, never in the way of typing. The handlers by `event.key`. */
export function useKeys(handlers: Record<string, (e: KeyboardEvent) => void>, on = true) {
  useEffect(() => {
    if (!on) return;
    const listen = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || typing(e.target) || !singleKeys()) return;
      // a form that can be left answers Esc before its page does
      if (
        e.key === 'Escape' &&
        e.target instanceof Element &&
        e.target.closest('form:has([data-leave])')
      )
        return;
      const handler = handlers[e.key];
      if (handler) {
        handler(e);
        e.preventDefault();
      }
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  });
}
