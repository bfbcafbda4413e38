import { Popover } from 'radix-ui';
import { useDocument } from '../../state/document';
import type { TriggerLook } from '../../ui/deferred';
import { PopOver } from '../../ui/PopOver';
import ConventionsSheet from './ConventionsSheet';

/** The form of the conventions, opened from the header. */
export default function ConventionsForm({ trigger }: { trigger: TriggerLook }) {
  const conventions = useDocument((state) => state.project!.conventions);
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger {...trigger} />
      <PopOver style={{ width: 772 }} aria-label="Conventions">
        <ConventionsSheet conventions={conventions} />
      </PopOver>
    </Popover.Root>
  );
}
