import { useState } from 'react';
import { emitRegion } from '../../../core/deliver/code';
import { deliverLanguages } from '../../../core/deliver/languages';
import type { SpawnNumbers } from '../../../core/deliver/region';
import type { Vec2 } from '../../../core/math/vec3';
import type { SpawnRegion } from '../../../core/spawn/spawn';
import { Select } from '../../sheet/Select';
import type { Moment } from '../../state/moment';
import { saveFile } from '../../ui/files';
import { copy } from '../../ui/notices';
import type { SpawnState } from './kept';
import type { Terms, termsUsed } from './terms';

/** The terms in the numbers of the conventions in force: by axis names, each with its sign. */
function inNumbers(
  { flat, codec: e }: Moment<SpawnState>,
  { terms }: Terms,
  { box, region }: SpawnRegion,
): SpawnNumbers {
  const out = (p: Vec2): Vec2 => e.toPair(flat ? 'up' : 'forward', p);
  const boxOf = (a: Vec2, b: Vec2) => ({
    min: [Math.min(a[0], b[0]), Math.min(a[1], b[1])] as Vec2,
    max: [Math.max(a[0], b[0]), Math.max(a[1], b[1])] as Vec2,
  });
  const { bounds, ahead } = terms;
  return {
    terms: {
      ...terms,
      visible: terms.visible.map(out),
      bounds: 'ringOuter' in bounds ? bounds : boxOf(out(bounds.min), out(bounds.max)),
      keepAway: terms.keepAway.map(({ centre, distance }) => ({ centre: out(centre), distance })),
      ahead: ahead && { ...ahead, apex: out(ahead.apex), direction: out(ahead.direction) },
    },
    box: boxOf(out(box.min), out(box.max)),
    expected: ((box.max[0] - box.min[0]) * (box.max[1] - box.min[1])) / region.area,
  };
}

/** The region as code. A part of its own: the languages are as large as the rest of the task. */
export default function RegionCode({ now, terms }: { now: Moment<SpawnState>; terms: ReturnType<typeof termsUsed> }) {
  const [language, setLanguage] = useState('TypeScript');
  const code =
    typeof terms === 'string' || !terms.found
      ? null
      : emitRegion(inNumbers(now, terms, terms.found), now.codec, language);
  return (
    <>
      <div className="row">
        <Select
          name="Language of the code"
          value={language}
          options={deliverLanguages.map(({ name }) => ({ value: name, label: name }))}
          onChange={setLanguage}
        />
        <button className="text-button ml-auto" disabled={!code} onClick={() => void copy(code!.text, 'the code')}>
          Copy
        </button>
        <button className="text-button" disabled={!code} onClick={() => saveFile(code!.name, code!.text, 'text/plain')}>
          Save
        </button>
      </div>
      <pre className="code-lines" data-testid="spawn-code" tabIndex={0}>
        {code?.text ?? 'There is no area to appear in.'}
      </pre>
    </>
  );
}
