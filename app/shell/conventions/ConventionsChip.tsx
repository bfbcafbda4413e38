import { presetOf } from '../../../core/conventions/conventions';
import { useDocument } from '../../state/document';
import { deferred } from '../../ui/deferred';
import { figure } from '../../ui/figures';
import { Arrow } from '../../ui/icons';
import { sign } from './sign';

/** The conventions in force in one line; every word is computed. Opens the form where they are set. */
export const ConventionsChip = deferred(
  'dialog',
  () => import('./ConventionsForm'),
  () => {
    const conventions = useDocument((state) => state.project!.conventions);
    const { world, ndc, matrix } = conventions;
    const preset = presetOf(conventions);
    return {
      className: 'chip',
      'data-source': 'conventions',
      title: 'Conventions in force',
      children: (
        <>
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
        </>
      ),
    };
  },
);
