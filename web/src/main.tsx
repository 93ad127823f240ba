import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/red-hat-mono/wght.css';
import '@fontsource-variable/spline-sans/wght.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App';
import './theme/global.css';
import './theme/bench.css';
import { publishTokens } from './theme/tokens';

publishTokens(document.documentElement);
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
