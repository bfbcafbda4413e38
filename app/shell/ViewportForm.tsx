import { Popover } from 'radix-ui';
import { setViewport } from '../edits/viewport';
import { NumberField } from '../sheet/NumberField';
import { useDocument } from '../state/document';
import type { TriggerLook } from '../ui/deferred';
import { PopOver } from '../ui/PopOver';

const sizes = [
  [1280, 720],
  [1920, 1080],
  [2560, 1080],
  [1024, 768],
  [844, 390],
  [390, 844],
] as const;

/** The viewport's size and device pixel ratio. */
export default function ViewportForm({ trigger }: { trigger: TriggerLook }) {
  const viewport = useDocument((state) => state.project!.viewport);
  const whole = (v: number) =>
    v >= 1 && v <= 16384 && Number.isInteger(v) ? null : 'A viewport’s side is a whole number from 1 to 16384.';
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger {...trigger} />
      <PopOver style={{ width: 250 }} aria-label="Viewport">
        <h3>Viewport</h3>
        <div className="grid-form mt-1">
          <span>Width</span>
          <NumberField
            name="Viewport width"
            value={viewport.width}
            unit="css px"
            width={120}
            refuse={whole}
            onChange={(width, g) => setViewport({ width }, g)}
          />
          <span>Height</span>
          <NumberField
            name="Viewport height"
            value={viewport.height}
            unit="css px"
            width={120}
            refuse={whole}
            onChange={(height, g) => setViewport({ height }, g)}
          />
          <span>Device pixels</span>
          <NumberField
            name="Device pixel ratio"
            value={viewport.devicePixelRatio}
            unit="per css px"
            step={0.25}
            width={120}
            refuse={(v) => (v >= 0.25 && v <= 8 ? null : 'A device pixel ratio lies between 0.25 and 8.')}
            onChange={(devicePixelRatio, g) => setViewport({ devicePixelRatio }, g)}
          />
        </div>
        <div className="mt-2 flex flex-wrap gap-1">
          {sizes.map(([width, height]) => (
            <button
              key={`${width}×${height}`}
              className="plain-button"
              aria-pressed={viewport.width === width && viewport.height === height}
              onClick={() => setViewport({ width, height })}
            >
              {width} × {height}
            </button>
          ))}
        </div>
      </PopOver>
    </Popover.Root>
  );
}
