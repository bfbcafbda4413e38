import { codecOf } from '../../../core/conventions/codec';
import type { Conventions } from '../../../core/conventions/conventions';
import type { Identified2d } from '../../../formats/diagnosisAnswers';
import { DataList } from '../../sheet/DataList';
import { angleSuffix } from '../../ui/angles';
import { counted } from '../../ui/figures';
import { change, takeCamera2d, takeConventions } from './edits';
import { useFound } from './found';
import { significant } from './words';

const listing = ({ matrix }: Conventions): string => `${matrix.vectors} vectors, ${matrix.storage}`;
const upText = ({ world }: Conventions): string => world.up.replace('-', '−');

/** The senses of y and the listings under which the numbers are a proper 2D camera. */
export function Alone2d() {
  const { now, found } = useFound();
  if (!found?.identified2d)
    return (
      <p className="text-note leading-4 text-ink2">
        Paste a matrix, or three points with their pixels, to find the conventions under which they are a 2D camera.
      </p>
    );
  const { candidates, open } = found.identified2d;
  if (!candidates.length)
    return (
      <>
        <p className="verdict-line" data-testid="alone">
          Under no conventions are these numbers a 2D camera’s.
        </p>
        <p className="text-note leading-4 text-ink2">
          Both senses of the world’s y and both listings were tried. A camera has one zoom along both axes, at right
          angles.
        </p>
      </>
    );
  const rows = candidates.map((one, place) => ({ key: `${upText(one.conventions)} ${listing(one.conventions)}`, place, one })); // prettier-ignore
  const chosen = rows[Math.min(now.slice.candidate, rows.length - 1)]!;
  const { conventions, camera } = chosen.one;
  return (
    <>
      <p className="verdict-line" data-testid="alone">
        {counted(candidates.length, 'set of conventions makes', 'sets of conventions make')} these numbers a 2D camera’s.
      </p>
      <DataList
        name="conventions"
        rows={rows}
        keyOf={({ key }) => key}
        columns={[
          { name: 'up', width: '40px', value: ({ one }) => upText(one.conventions) },
          { name: 'zoom', width: '1fr', value: ({ one }) => significant(one.camera.zoom) },
          { name: 'rotation', width: '1fr', value: ({ one }) => `${significant(one.camera.rotation)}${angleSuffix(codecOf(one.conventions))}` },
          { name: 'focus', width: '1.6fr', value: ({ one }) => one.camera.focus.map((v) => significant(v)).join(', ') },
        ]}
        chosen={chosen.key}
        most={6}
        onChoose={({ place }) => change('choose conventions', (draft) => void (draft.candidate = place))}
      />
      <p className="text-note leading-4 text-ink2">
        {listing(conventions)}. The anchor is taken in the middle of the viewport.
      </p>
      <Open2d open={open} />
      <div className="row flex-wrap">
        <button className="plain-button" onClick={() => takeConventions(conventions)}>
          Take the conventions
        </button>
        <button className="plain-button" onClick={() => takeCamera2d(camera, conventions, 'From the log')}>
          Take the camera
        </button>
      </div>
    </>
  );
} // prettier-ignore

/** Open questions, each with the measurement that decides it. */
const Open2d = ({ open }: Pick<Identified2d, 'open'>) =>
  open.map(({ name, decides }) => (
    <p key={name} className="text-note leading-4" data-open={name}>
      <b>Open: {name === 'anchor' ? 'the anchor' : 'the sense of y'}.</b> {decides}
    </p>
  ));
