import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useDocument } from '../state/document';
import { probeBody } from '../edits/actions';
import type { TriggerLook } from '../ui/deferred';
import { PopOver } from '../ui/PopOver';

/** Lists the bodies to probe, and the free point. */
export default function ProbeList({ trigger }: { trigger: TriggerLook }) {
  const [open, setOpen] = useState(true);
  const bodies = useDocument((state) => state.project!.bodies);
  const choose = (id: string | null) => {
    setOpen(false);
    probeBody(id);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger {...trigger} />
      <PopOver style={{ width: 260, padding: 0 }} align="start" sideOffset={4} aria-label="Probe">
        <Command label="Bodies">
          <Command.Input className="list-input" placeholder="Find a body" autoFocus />
          <Command.List className="max-h-[400px] overflow-auto py-1">
            <Command.Empty className="px-3 py-2 text-ink2">No body has that in its name.</Command.Empty>
            <Command.Item className="menu-item" value="Free point" onSelect={() => choose(null)}>
              Free point <span className="right">where the probe is</span>
            </Command.Item>
            {open &&
              bodies.map((body) => (
                <Command.Item
                  key={body.id}
                  value={`${body.name} ${body.id}`}
                  className="menu-item"
                  onSelect={() => choose(body.id)}
                >
                  <span style={{ paddingLeft: body.parent === null ? 0 : 12 }}>{body.name}</span>
                  <span className="right">{body.shape.kind}</span>
                </Command.Item>
              ))}
          </Command.List>
        </Command>
      </PopOver>
    </Popover.Root>
  );
}
