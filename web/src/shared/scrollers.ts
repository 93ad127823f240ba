import { useEffect } from 'react';

/** What scrolls within itself on a narrow window. */
const SCROLLERS = 'table.plain';

/** Tables that are wider than their place can be reached with the keyboard, to scroll them; all others are passed over. */
export function useScrollers() {
  useEffect(() => {
    const seen = new WeakSet<Element>();
    const mark = (of: Element) => {
      const wider = of.scrollWidth > of.clientWidth && getComputedStyle(of).overflowX !== 'visible';
      const reachable = of.querySelector('a[href], button, input, select, textarea') !== null;
      if (wider && !reachable) of.setAttribute('tabindex', '0');
      else of.removeAttribute('tabindex');
    };
    const sizes = new ResizeObserver((entries) => entries.forEach((e) => mark(e.target)));
    const look = () =>
      document.querySelectorAll(SCROLLERS).forEach((of) => {
        if (!seen.has(of)) sizes.observe(of);
        seen.add(of);
        mark(of);
      });
    let asked = 0;
    const changes = new MutationObserver(() => {
      cancelAnimationFrame(asked);
      asked = requestAnimationFrame(look);
    });
    changes.observe(document.body, { childList: true, subtree: true });
    look();
    return () => {
      cancelAnimationFrame(asked);
      changes.disconnect();
      sizes.disconnect();
    };
  }, []);
}
