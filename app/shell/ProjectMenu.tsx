import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { useKeeping } from '../state/autosave';
import { useNewer } from '../state/offline';
import { chooseFile, copyLink, openDemo, openEmpty } from '../edits/actions';
import { copyRequest, saveProject, saveRequest } from '../edits/exporting';
import type { TriggerLook } from '../ui/deferred';
import { leaveFocus } from '../ui/PopOver';

/** The menu under the name of the project. */
export default function ProjectMenu({ trigger }: { trigger: TriggerLook }) {
  const keeping = useKeeping((state) => state.state);
  const changeOver = useNewer((state) => state.changeOver);
  const navigate = useNavigate();
  const item = (label: string, run: () => void, right?: string) => (
    <DropdownMenu.Item className="menu-item" onSelect={run}>
      {label}
      {right && <span className="right">{right}</span>}
    </DropdownMenu.Item>
  );
  return (
    // Modal it would write styles into the page to hold it still, which the policy lets nobody do;
    // and there is nothing to hold.
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger {...trigger} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="start" sideOffset={6} onCloseAutoFocus={leaveFocus}>
          <div className="px-3 pb-1 text-small text-ink2">
            {keeping === 'kept'
              ? 'Kept in this browser'
              : keeping === 'unsaved'
                ? 'Being kept…'
                : 'Not kept by this browser'}
          </div>
          <div className="menu-line" />
          {item('All projects and versions…', () => void navigate('/projects'))}
          {item('Save as a file', saveProject, 'Ctrl S')}
          {item('Copy a link', () => void copyLink())}
          {item('Open a file…', () => chooseFile(), 'Ctrl O')}
          <div className="menu-line" />
          {item('Save as a compute request', saveRequest)}
          {item('Copy as a compute request', () => void copyRequest())}
          <div className="menu-line" />
          {item('New 3D project', () => void openEmpty('space'))}
          {item('New 2D project, y up', () => void openEmpty('flatUp'))}
          {item('New 2D project, y down', () => void openEmpty('flatDown'))}
          <div className="menu-line" />
          {item('Open the demo, Saltmarrow harbour', () => void openDemo('harbour'), '3D')}
          {item('Open the demo, Saltmarrow quay', () => void openDemo('quay'), '2D')}
          {item('Open the demo, Saltmarrow chart', () => void openDemo('chart'), '2D')}
          {changeOver && (
            <>
              <div className="menu-line" />
              {item('Change over to the newer Astrolabe', changeOver)}
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
