import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/** What is asked for as it stands in the address; changing it leaves no step behind in the browser's history. */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  // a second change may come before the page has been drawn with the first; it must not undo it
  const latest = useRef(params);
  useEffect(() => {
    latest.current = params;
  }, [params]);
  const put = (next: URLSearchParams) => {
    latest.current = next;
    setParams(next, { replace: true });
  };
  const change = (edit: (p: URLSearchParams) => void) => {
    const next = new URLSearchParams(latest.current);
    edit(next);
    put(next);
  };
  const set = (name: string, value?: string) =>
    change((p) => {
      if (value) p.set(name, value);
      else p.delete(name);
    });
  const clear = () => put(new URLSearchParams());
  return { params, change, set, clear };
}
