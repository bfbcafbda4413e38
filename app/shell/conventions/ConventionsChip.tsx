import { Popover } from 'radix-ui';
import { lazy, Suspense } from 'react';
import { presetOf } from '../../../core/conventions/conventions';
import { useDocument } from '../../state/document';
import { figure } from '../../ui/figures';
import { Arrow } from '../../ui/icons';
import { PopOver } from '../../ui/PopOver';
import { sign } from './sign';

/** Fetched when it is first opened. */
const ConventionsSheet = lazy(() => import('./ConventionsSheet'));

/**
 * The conventions in force in one line; every word is computed. Opens the sheet where they are set.
 */
export function ConventionsChip() {
  const conventions = useDocument((state) => state.project!.conventions);
  const { world, ndc, matrix } = conventions;
  const preset = presetOf(conventions);
  return (
    <Popover.Root>
      <Popover.Trigger className="chip" data-source="conventions" title="Conventions in force">
        <b>{preset ?? 'Own'}</b>
        <span className="axes-words">
          {sign(world.right)} right, {sign(world.up)} up, {sign(world.forward)} ahead
        </span>
        <i />
        <b>NDC</b>
        <span>
          y {ndc.up === '+y' ? 'up' : 'down'}, z {figure(ndc.near, Number.isInteger(ndc.near) ? 0 : 2)}
        </span>
        <Arrow />
        <span>{figure(ndc.far, Number.isInteger(ndc.far) ? 0 : 2)}</span>
        <i />
        <span>{matrix.vectors} vectors</span>
      </Popover.Trigger>
      <PopOver style={{ width: 772 }} aria-label="Conventions">
        <Suspense>
          <ConventionsSheet conventions={conventions} />
        </Suspense>
      </PopOver>
    </Popover.Root>
  );
}
