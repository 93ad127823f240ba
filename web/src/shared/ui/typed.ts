import { useState } from 'react';

/**
 * The text of a field as it is typed. Where the value changes from outside, as by undo or by another choice, and not by
 * what was typed here, the text is the new value's.
 */
export function useTyped<T>(value: T, shown: (value: T) => string) {
  const [text, setText] = useState(() => shown(value));
  const [sent, setSent] = useState(value);
  const [before, setBefore] = useState(value);
  if (before !== value) {
    setBefore(value);
    if (sent !== value) {
      setSent(value);
      setText(shown(value));
    }
  }
  return { text, setText, setSent };
}
