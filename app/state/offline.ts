import { create } from 'zustand';
import { say, warn } from '../ui/notices';

/** Milliseconds that the newer worker is given to take over. */
const patience = 5000;

/** What changes over to a newer Astrolabe that waits; null while there is none. */
export const useNewer = create<{ changeOver: (() => void) | null }>(() => ({ changeOver: null }));

/**
 * Has the browser keep the application, so that it opens without a network. Says so when a newer one
 * has come in the meantime, which goes on being offered in the menu of the project; and when
 * another tab has changed over, since the parts of the old one are gone then.
 */
export async function keepApplication(home: string): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  const { serviceWorker } = navigator;
  try {
    const registration = await serviceWorker.register(`${home}sw.js`, { scope: home });
    let [asked, first] = [false, !serviceWorker.controller];
    let waited: ReturnType<typeof setTimeout> | undefined;
    const versions = new BroadcastChannel('astrolabe versions');
    const tellOfChange = () => {
      useNewer.setState({ changeOver: () => window.location.reload() });
      warn('Another tab has changed over to a newer Astrolabe, and parts of this one are gone. Load this page again.', [], {
        label: 'Load it again',
        run: () => window.location.reload(),
      }); // prettier-ignore
    };
    versions.addEventListener('message', tellOfChange);
    serviceWorker.addEventListener('controllerchange', () => {
      // The very first one takes its place by itself.
      const [mine, begins] = [asked, first];
      first = false;
      clearTimeout(waited);
      if (mine) window.location.reload();
      else if (!begins) tellOfChange();
    });
    const offer = () => {
      const { waiting } = registration;
      if (!waiting || !serviceWorker.controller) return;
      const changeOver = () => {
        asked = true;
        waiting.postMessage('take over');
        // A browser may wait for minutes for requests to the older worker: then the page goes on without it.
        waited = setTimeout(() => {
          void registration.unregister().then(() => {
            versions.postMessage('changed over');
            window.location.reload();
          });
        }, patience);
      };
      useNewer.setState({ changeOver });
      say('A newer Astrolabe is here.', { label: 'Change over', run: changeOver });
    };
    offer();
    registration.addEventListener('updatefound', () => registration.installing?.addEventListener('statechange', offer));
  } catch {
    // Where it is not allowed (a page without a safe connection) the application works as well,
    // from its server alone.
  }
}
