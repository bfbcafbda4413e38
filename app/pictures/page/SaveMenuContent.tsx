import { DropdownMenu } from 'radix-ui';
import type { TriggerLook } from '../../ui/deferred';
import { leaveFocus } from '../../ui/PopOver';
import { widestPicture } from '../compose/contract';
import { savePng, saveSvg } from './saving';

const widths = [1920, 3840, widestPicture] as const;

/** Saves a picture as it stands, as lines or as pixels. */
export default function SaveMenuContent({
  name,
  title,
  trigger,
}: {
  name: string;
  title: string;
  trigger: TriggerLook;
}) {
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger {...trigger} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="end" sideOffset={4} onCloseAutoFocus={leaveFocus}>
          <DropdownMenu.Item className="menu-item" onSelect={() => void saveSvg(name, title)}>
            SVG <span className="right">lines and letters</span>
          </DropdownMenu.Item>
          {widths.map((wide) => (
            <DropdownMenu.Item key={wide} className="menu-item" onSelect={() => void savePng(name, title, wide)}>
              PNG <span className="right">{wide} wide</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
