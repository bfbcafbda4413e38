import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { allCameras } from '../../../formats/project';
import {
  deleteCamera,
  deleteSnapshot,
  duplicateCamera,
  hideSnapshot,
  keepSnapshot,
  lookThrough,
  renameCamera,
  returnToSnapshot,
  showSnapshot,
} from '../../edits/cameras';
import { addStartingCamera, addStartingCamera2d, startingCameras, startingCameras2d } from '../../edits/addedCameras';
import { useDocument, endGesture } from '../../state/document';
import { useDrawings } from '../../state/drawings';
import type { TriggerLook } from '../../ui/deferred';
import { Check } from '../../ui/icons';
import { leaveFocus } from '../../ui/PopOver';

/**
 * The camera looked through by its name, with all there are, those to start from, and the frames
 * set aside.
 */
export default function CameraMenuContent({ trigger }: { trigger: TriggerLook }) {
  const [open, setOpen] = useState(true);
  const project = useDocument((state) => state.project!);
  const shown = useDrawings((state) => state.snapshot);
  const [renaming, setRenaming] = useState(false);
  const { camera, snapshots } = project;
  const all = allCameras(project);
  if (renaming)
    return (
      <input
        className="camera-name"
        aria-label="Name of the camera"
        defaultValue={camera.name}
        autoFocus
        onFocus={({ currentTarget }) => currentTarget.select()}
        onBlur={({ currentTarget }) => {
          renameCamera(currentTarget.value);
          endGesture();
          setRenaming(false);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') event.currentTarget.value = camera.name;
          if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur();
        }}
      />
    );
  const item = (label: string, run: () => void, right?: string, disabled = false) => (
    <DropdownMenu.Item className="menu-item" onSelect={run} disabled={disabled}>
      {label}
      {right && <span className="right">{right}</span>}
    </DropdownMenu.Item>
  );
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger {...trigger} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="start" sideOffset={4} onCloseAutoFocus={leaveFocus}>
          <div className="menu-head">Look through</div>
          <DropdownMenu.RadioGroup value={camera.id} onValueChange={lookThrough}>
            {all.map(({ id, name }) => (
              <DropdownMenu.RadioItem key={id} value={id} className="menu-item">
                <span className="menu-check">
                  <DropdownMenu.ItemIndicator>
                    <Check />
                  </DropdownMenu.ItemIndicator>
                </span>
                {name}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <div className="menu-line" />
          {item('Duplicate', duplicateCamera)}
          {item('Rename…', () => setRenaming(true))}
          {item('Delete', deleteCamera, undefined, all.length < 2)}
          <div className="menu-line" />
          <div className="menu-head">Add, for the probe</div>
          {camera.kind === '3d'
            ? (Object.keys(startingCameras) as (keyof typeof startingCameras)[]).map((kind) => (
                <span key={kind}>{item(startingCameras[kind], () => addStartingCamera(kind))}</span>
              ))
            : (Object.keys(startingCameras2d) as (keyof typeof startingCameras2d)[]).map((kind) => (
                <span key={kind}>{item(startingCameras2d[kind], () => addStartingCamera2d(kind))}</span>
              ))}
          <div className="menu-line" />
          {item('Keep as a snapshot', keepSnapshot, 'K')}
          {shown && item('Hide the snapshot', hideSnapshot)}
          {snapshots.map(({ id, name }) => (
            <DropdownMenu.Sub key={id}>
              <DropdownMenu.SubTrigger className="menu-item">
                {name} <span className="right">›</span>
              </DropdownMenu.SubTrigger>
              <DropdownMenu.Portal>
                <DropdownMenu.SubContent className="menu" sideOffset={2}>
                  {item('Show beside', () => showSnapshot(id, 'beside'))}
                  {item('Show as a second reticle', () => showSnapshot(id, 'reticle'))}
                  {item('Return to it', () => returnToSnapshot(id))}
                  {item('Delete', () => deleteSnapshot(id))}
                </DropdownMenu.SubContent>
              </DropdownMenu.Portal>
            </DropdownMenu.Sub>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
