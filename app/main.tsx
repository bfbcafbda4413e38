import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { beginPictures } from './pictures/stage';
import { openShelf } from './state/keep';
import { keepApplication } from './state/offline';
import { followProjects } from './state/table';
import { followTheme } from './state/settings';
import { followHand } from './ui/hand';
import './style.css';

/** Where the application lies: built, this file is in its folder `assets`. */
const home = import.meta.env.DEV ? '/' : new URL(/* @vite-ignore */ '..', import.meta.url).pathname;

// A plain file server shows a page at its folder.
const { pathname, search, hash } = window.location;
if (pathname.length > home.length && pathname.endsWith('/'))
  window.history.replaceState(null, '', pathname.slice(0, -1) + search + hash);

followTheme();
followHand();
beginPictures();
createRoot(document.getElementById('root')!).render(
  <BrowserRouter basename={home}>
    <App />
  </BrowserRouter>,
);
void openShelf().then(followProjects);
if (!import.meta.env.DEV)
  window.addEventListener('load', () => setTimeout(() => void keepApplication(home), 3000), { once: true });
