import { DropdownMenu } from 'radix-ui';
import { useSettings } from '../../state/settings';
import type { TriggerLook } from '../../ui/deferred';
import { Check } from '../../ui/icons';
import { leaveFocus } from '../../ui/PopOver';
import type { PaneName } from '../compose/panes';

export interface PaneTitleProps {
  route: string;
  row: readonly PaneName[];
  place: number;
  others: readonly PaneName[];
  titleOf: (name: PaneName) => readonly [string, string];
}

/** The menu of a pane's title: the content of the pane, and a third pane beside two. */
export default function PaneMenu({
  route,
  row,
  place,
  others,
  titleOf,
  trigger,
}: PaneTitleProps & { trigger: TriggerLook }) {
  const setRow = (next: readonly PaneName[]) =>
    useSettings.setState(({ panes }) => ({ panes: { ...panes, [route]: next } }));
  const here = row[place]!;
  const last = place === row.length - 1;
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger {...trigger} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="start" sideOffset={4} onCloseAutoFocus={leaveFocus}>
          <div className="menu-head">Show here</div>
          <DropdownMenu.RadioGroup
            value={here}
            onValueChange={(next) => setRow(row.map((name, i) => (i === place ? next : name)))}
          >
            {[here, ...others].map((name) => (
              <DropdownMenu.RadioItem key={name} value={name} className="menu-item">
                <span className="menu-check">
                  <DropdownMenu.ItemIndicator>
                    <Check />
                  </DropdownMenu.ItemIndicator>
                </span>
                {titleOf(name)[0]} <span className="right">{titleOf(name)[1]}</span>
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <div className="menu-line" />
          <DropdownMenu.Item className="menu-item" onSelect={() => useSettings.setState({ enlarged: here })}>
            Enlarge
          </DropdownMenu.Item>
          {last && row.length === 2 && others.length > 0 && (
            <>
              <div className="menu-line" />
              <DropdownMenu.Item className="menu-item" onSelect={() => setRow([...row, others[0]!])}>
                A third pane beside it
              </DropdownMenu.Item>
            </>
          )}
          {row.length === 3 && (
            <>
              <div className="menu-line" />
              <DropdownMenu.Item className="menu-item" onSelect={() => setRow(row.filter((_, i) => i !== place))}>
                Close this pane
              </DropdownMenu.Item>
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
