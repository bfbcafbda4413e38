import './Sections.css';
import { type ComponentType } from 'react';
import { useSettings } from '../state/settings';
import { Fold } from './Fold';

/** A section of a worksheet. */
export interface Section {
  readonly id: string;
  readonly title: string;
  /** What the line of sections calls it. */
  readonly short: string;
  readonly Content: ComponentType;
  /** What stands beside its heading, open or not. */
  readonly Aside?: ComponentType;
}

/** How many stand open until the user says otherwise. */
const openAtFirst = 2;

/** Opens a section, wherever it is, and brings it to the top of the sheet. */
export function jumpTo(id: string): void {
  useSettings.setState(({ folds }) => ({ folds: { ...folds, [id]: true } }));
  requestAnimationFrame(() => {
    const section = document.querySelector<HTMLElement>(`[data-section="${id}"]`);
    if (!section) return;
    // The line of sections stands over the top, in one line or two.
    const line = document.querySelector<HTMLElement>('.section-line');
    section.style.scrollMarginTop = `${(line?.offsetHeight ?? 0) + 4}px`;
    section.scrollIntoView({ block: 'start' });
    section.querySelector<HTMLElement>('h2 button')?.focus({ preventScroll: true });
  });
}

/**
 * A worksheet of sections: one line of them that jumps, then each under its heading, of which the
 * first two are open.
 */
export const Sections = ({ list }: { list: readonly Section[] }) => (
  <>
    <nav className="section-line" aria-label="Sections">
      {list.map(({ id, short, title }) => (
        <button key={id} title={title} onClick={() => jumpTo(id)}>
          {short}
        </button>
      ))}
    </nav>
    {list.map(({ id, title, Content, Aside }, i) => (
      <Fold key={id} id={id} title={title} aside={Aside && <Aside />} open={i < openAtFirst}>
        <Content />
      </Fold>
    ))}
  </>
);
