/**
 * Keeps the Tab key from stopping at a chart's layers: the browser takes an element of a drawing
 * for one to be focused when something listens to its focus, as the library's layers do.
 */
export function passedBy(chart: HTMLElement | null): (() => void) | undefined {
  if (!chart) return;
  const pass = () =>
    chart.querySelectorAll('g:not([tabindex])').forEach((layer) => layer.setAttribute('tabindex', '-1'));
  pass();
  const observer = new MutationObserver(pass);
  observer.observe(chart, { childList: true, subtree: true });
  return () => observer.disconnect();
}
