import type { PaneTitleProps } from './PaneMenu';
import { deferred } from '../../ui/deferred';
import { Caret } from '../../ui/icons';
import { meaning } from '../../ui/Term';

/** The title of a pane; opens the menu of what it shows. */
export const PaneTitle = deferred(
  'menu',
  () => import('./PaneMenu'),
  ({ row, place, titleOf }: PaneTitleProps) => {
    const here = row[place]!;
    return {
      className: 'pane-button',
      'aria-label': `Pane: ${titleOf(here)[0]}`,
      title: here === 'screens' ? meaning('tray') : undefined,
      children: (
        <>
          {titleOf(here)[0]} <Caret />
        </>
      ),
    };
  },
);
