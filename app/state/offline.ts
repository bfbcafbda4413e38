import { say } from '../ui/notices';

/**
 * Has the browser keep the application, so that it opens without a network; says so when a newer
 * one has come in the meantime.
 */
export async function keepApplication(home: string): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    const registration = await navigator.serviceWorker.register(`${home}sw.js`, { scope: home });
    const offer = () => {
      // The very first one takes its place by itself.
      if (!registration.waiting || !navigator.serviceWorker.controller) return;
      say('A newer Astrolabe is here.', {
        label: 'Change over',
        run: () => {
          navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
          registration.waiting?.postMessage('take over');
        },
      });
    };
    offer();
    registration.addEventListener('updatefound', () => registration.installing?.addEventListener('statechange', offer));
  } catch {
    // Where it is not allowed (a page without a safe connection) the application works as well,
    // from its server alone.
  }
}
