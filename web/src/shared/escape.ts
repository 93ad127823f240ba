import { useEffect } from 'react';

/** What Ant Design opens over the page answers Esc itself. */
const OVER = [
  '.ant-modal-wrap:not([style*="display: none"])',
  '.ant-popover:not(.ant-popover-hidden)',
  '.ant-select-open',
  '.ant-dropdown-open',
  '.ant-picker-dropdown:not(.ant-picker-dropdown-hidden)',
].join(', ');

/** Controls that change what a form holds without an input of the keyboard. */
const CHOOSING = '.ant-select, .ant-picker, .ant-radio-wrapper, .ant-checkbox-wrapper, label';

/**
 * Esc in a form: leaves it where nothing was typed; else it goes to the button that leaves it, where Esc or Enter says so
 * once more. Without such a button the field is left, so that the next Esc is the page's own. Where focus would be lost with
 * the form, it goes back to the button the form came from.
 */
export function useEscape() {
  useEffect(() => {
    const typed = new WeakSet<HTMLFormElement>();
    let opener: { words: string; around: Element } | undefined;

    const note = (e: Event) => {
      const form = e.target instanceof Element ? e.target.closest('form') : null;
      if (form) typed.add(form);
    };
    const press = (e: Event) => {
      if (!(e.target instanceof Element)) return;
      if (e.target.closest('form')) {
        if (e.target.closest(CHOOSING)) note(e);
        return;
      }
      const button = e.target.closest('button');
      if (button)
        opener = {
          words: button.textContent ?? '',
          around: button.closest('section, form, main') ?? document.body,
        };
    };
    const back = () => {
      if (document.activeElement && document.activeElement !== document.body) return;
      const around = opener?.around.isConnected ? opener.around : document.querySelector('main');
      const again = [...(around?.querySelectorAll('button') ?? [])].find(
        (b) => b.textContent === opener?.words,
      );
      (again ?? around?.querySelector<HTMLElement>('button, a[href]'))?.focus();
    };
    const key = (e: KeyboardEvent) => {
      if (e.key !== 'Escape' || e.defaultPrevented || !(e.target instanceof HTMLElement)) return;
      const form = e.target.closest('form');
      if (!form || document.querySelector(OVER)) return;
      const leave = form.querySelector<HTMLElement>('[data-leave]');
      if (!leave) {
        e.target.blur();
      } else if (typed.has(form) && document.activeElement !== leave) {
        leave.focus();
      } else {
        leave.click();
        setTimeout(back);
      }
      e.preventDefault();
      e.stopPropagation();
    };
    document.addEventListener('input', note);
    document.addEventListener('click', press, true);
    document.addEventListener('keydown', key);
    return () => {
      document.removeEventListener('input', note);
      document.removeEventListener('click', press, true);
      document.removeEventListener('keydown', key);
    };
  }, []);
}
