import { nonce } from './base/nonce.ts';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/spline-sans-mono';
import '@fontsource/dancing-script/latin-600.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App.tsx';
import './base/look.css';

const cache = createCache({ key: 'jb', ...(nonce === undefined ? {} : { nonce }), prepend: true });
const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <App />
    </CacheProvider>
  </StrictMode>,
);
