import { cleanup, configure } from '@testing-library/react';
import 'fake-indexeddb/auto';
import { afterEach, vi } from 'vitest';

// as in the browser tests: waiting ends with the answer, not with a busy machine's patience
configure({ asyncUtilTimeout: 10_000 });

// what jsdom lacks and Ant Design asks for
vi.stubGlobal(
  'ResizeObserver',
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);
HTMLCanvasElement.prototype.getContext = () => null;

afterEach(cleanup);
