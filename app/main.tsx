import '/tables.css';
import './ui/base.css';
import './ui/sheet.css';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './shell/App';
import { Boundary } from './shell/Boundary';
import './shell/narrow.css';
import { beginPictures } from './pictures/page/picturesClient';
import { prepareMeshes } from './state/meshTrees';
import { offerLink } from './edits/actions';
import { openShelf } from './state/autosave';
import { keepApplication } from './state/offline';
import { followProjects } from './state/table';
import { followTheme } from './state/settings';
import { followDocument } from './state/pace';
import { installTasks, loadOpenTask, reportUnread } from './shell/wiring';
import { taskNames } from './tasks/names';
import { taskAt } from './tasks/page';
import { followDrags } from './ui/activeDrag';

/** Where the application lies: built, this file is in its folder `assets`. */
const home = import.meta.env.DEV ? '/' : new URL(/* @vite-ignore */ '..', import.meta.url).pathname;

// A plain file server shows a page at its folder.
const { pathname, search, hash } = window.location;
if (pathname.length > home.length && pathname.endsWith('/'))
  window.history.replaceState(null, '', pathname.slice(0, -1) + search + hash);

/** A project in the address is offered, and taken out of it. */
const isLink = (fragment: string): boolean => fragment.startsWith('#project=');
window.addEventListener('hashchange', () => {
  const { hash, pathname, search } = window.location;
  if (!isLink(hash)) return;
  window.history.replaceState(window.history.state, '', pathname + search);
  void offerLink(hash);
});

installTasks();
loadOpenTask((taskAt(pathname) ?? taskNames[0]!).route);
followTheme();
followDrags();
followDocument();
beginPictures();
prepareMeshes();
createRoot(document.getElementById('root')!).render(
  <BrowserRouter basename={home}>
    <Boundary projects={`${home}projects`}>
      <App />
    </Boundary>
  </BrowserRouter>,
);
void openShelf().then(() => {
  followProjects();
  reportUnread();
  if (isLink(hash)) void offerLink(hash);
});
if (!import.meta.env.DEV)
  window.addEventListener('load', () => setTimeout(() => void keepApplication(home), 3000), { once: true });
