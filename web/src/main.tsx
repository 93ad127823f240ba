import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/red-hat-mono/wght.css';
import '@fontsource-variable/spline-sans/wght.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App';
import './theme/global.css';
import { keepThePage } from './shared/newVersion';
import { openLook } from './theme/look';

openLook();
keepThePage();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
