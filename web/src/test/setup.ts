import { cleanup } from '@testing-library/react';
import { afterEach, vi } from 'vitest';

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
