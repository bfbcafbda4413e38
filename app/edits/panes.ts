import { everyTask, useSettings } from '../state/settings';

/** Shows a pane beside the plan: a task's own pane in that task, another one in every task. */
export function showPane(pane: string): void {
  useSettings.setState(({ panes }) => {
    // A pane of a task's own in that task; one of the house in all, and in those that have no row yet.
    const [task, own] = pane.split('/');
    const routes = own ? [task!] : new Set([...Object.keys(panes), everyTask]);
    const beside = (route: string) => [panes[route]?.[0] ?? 'plan', pane];
    return { panes: { ...panes, ...Object.fromEntries([...routes].map((route) => [route, beside(route)])) } };
  });
}
