import { everyTask, useSettings } from '../state/settings';

/** Shows a pane beside the plan: a task's own pane in that task, another one in every task. */
export function showPane(pane: string): void {
  useSettings.setState(({ panes }) => {
    // A task's own pane is shown in that task, any other pane in every task.
    const [task, own] = pane.split('/');
    const routes = own ? [task!] : new Set([...Object.keys(panes), everyTask]);
    const beside = (route: string) => [panes[route]?.[0] ?? 'plan', pane];
    return { panes: { ...panes, ...Object.fromEntries([...routes].map((route) => [route, beside(route)])) } };
  });
}
