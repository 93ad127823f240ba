import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/red-hat-mono/wght.css';
import '@fontsource-variable/spline-sans/wght.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App';
import './theme/global.css';
import './theme/desk.css';
import './theme/drawings.css';
import './theme/ahead.css';
import './theme/dossier.css';
import './theme/jobs.css';
import './theme/setup.css';
import './theme/fleets.css';
import './theme/engines.css';
import './theme/bench.css';
import './theme/calculators.css';
import './theme/board.css';
import './theme/stores.css';
import './theme/letters.css';
import './theme/media.css';
import { keepThePage } from './shared/newVersion';
import { openLook } from './theme/look';

openLook();
keepThePage();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
