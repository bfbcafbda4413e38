import { useEffect } from 'react';
import { importFirst, takeText } from '../edits/actions';

const editable = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/**
 * Files dropped anywhere on the page, and text pasted outside a field: both are taken as what they
 * are.
 */
export function Drops() {
  useEffect(() => {
    const over = (event: DragEvent) => event.dataTransfer?.types.includes('Files') && event.preventDefault();
    const drop = (event: DragEvent) => {
      const files = event.dataTransfer?.files;
      if (!files?.length || event.defaultPrevented) return;
      event.preventDefault();
      void importFirst([...files]);
    };
    const paste = (event: ClipboardEvent) => {
      if (editable(event.target)) return;
      const files = event.clipboardData?.files;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files?.length) void importFirst([...files]);
      else if (text.trim()) void takeText(text, 'What was pasted');
      else return;
      event.preventDefault();
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, []);
  return null;
}
