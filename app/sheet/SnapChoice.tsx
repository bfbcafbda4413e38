import type { ProjectCamera2d } from '../../formats/project';
import { editCamera2d } from '../state/document';
import { Choice } from '../ui/Choice';

/** How the scroll of a flat camera is put on whole pixels. */
export const SnapChoice = ({ snap }: Pick<ProjectCamera2d, 'snap'>) => (
  <div className="row">
    <span className="label">Snap</span>
    <Choice
      name="Snap the scroll"
      value={snap}
      options={[
        { value: 'none', label: 'free' },
        { value: 'floor', label: 'down' },
        { value: 'round', label: 'nearest' },
      ]}
      onChange={(to) => editCamera2d('change the snapping', (camera) => void (camera.snap = to))}
    />
  </div>
);
