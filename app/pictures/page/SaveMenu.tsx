import { deferred } from '../../ui/deferred';

/** Saves a picture as SVG or PNG. */
export const SaveMenu = deferred(
  'menu',
  () => import('./SaveMenuContent'),
  ({ title }: { name: string; title: string }) => ({
    className: 'small',
    'aria-label': `Save the picture: ${title}`,
    children: 'Save',
  }),
);
