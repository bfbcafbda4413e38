import { useState } from 'react';
import { chooseFile } from '../../edits/actions';
import { saveRequest, saveProject } from '../../edits/exporting';
import { widestPicture } from '../../pictures/compose/contract';
import { savePng, saveSvg } from '../../pictures/page/saving';
import { NumberField } from '../../sheet/NumberField';
import { SelectRow } from '../../sheet/Select';
import { useTaskMoment } from '../../state/tempo';
import { change, saveReport, saveScene, useSaid } from './edits';
import type { DeliverState } from './kept';

const pictures = ['main', 'plan', 'section', 'screens', 'outside'] as const;
type Picture = (typeof pictures)[number];
const titles: Readonly<Record<Picture, string>> = { main: 'Through the camera', plan: 'Plan', section: 'Section', screens: 'Screens', outside: 'Outside' }; // prettier-ignore
/** Those that stand in the centre now. */
const onScreen = (): Picture[] => pictures.filter((name) => document.querySelector(`.picture-block[data-picture="${name}"] > svg.overlay`)); // prettier-ignore

/** Pictures as files, as they stand on the screen. */
export function PictureFiles() {
  const { slice, flat } = useTaskMoment<DeliverState>('deliver');
  const titleOf = (one: Picture) => (one === 'plan' && flat ? 'World' : titles[one]);
  const [wanted, setWanted] = useState<Picture>('main');
  const there = onScreen();
  const name = there.includes(wanted) ? wanted : (there[0] ?? 'main');
  return (
    <>
      <SelectRow
        label="Picture"
        id="deliver-picture"
        value={name}
        options={(there.length ? there : (['main'] as const)).map((value) => ({ value, label: titleOf(value) }))}
        onChange={setWanted}
      />
      <div className="row">
        <NumberField
          name="Width of the saved picture"
          label="width"
          width="50%"
          unit="px"
          value={slice.wide}
          step={10}
          refuse={(v) =>
            Number.isInteger(v) && v >= 1 && v <= widestPicture ? null : `A whole number from 1 to ${widestPicture}.`
          }
          onChange={(v, gesture) => change('set the width of pictures', (draft) => void (draft.wide = v), gesture)}
        />
        <button className="plain-button" onClick={() => void savePng(name, titleOf(name), slice.wide)}>
          PNG
        </button>
        <button className="plain-button" onClick={() => void saveSvg(name, titleOf(name))}>
          SVG
        </button>
      </div>
      <p className="text-note leading-4 text-ink2">
        Every picture has Save in its caption, in every task, with the marks of the task.
      </p>
    </>
  );
}

/** Scenes, projects and points, in and out; the report. */
export function SceneFiles() {
  const said = useSaid((state) => state.said);
  return (
    <>
      <div className="row flex-wrap">
        <span className="label">glTF 2.0</span>
        <button className="plain-button" onClick={() => void saveScene(true)}>
          .glb
        </button>
        <button className="plain-button" onClick={() => void saveScene(false)}>
          .gltf
        </button>
      </div>
      <p className="text-note leading-4 text-ink2">Bodies in their tree, cameras, and how both move.</p>
      {said.length > 0 && (
        <ul className="text-note leading-4" data-testid="gltf-said">
          {said.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      <div className="row flex-wrap">
        <span className="label">JSON</span>
        <button className="plain-button" onClick={() => void saveProject()}>
          Project
        </button>
        <button className="plain-button" onClick={() => void saveRequest()}>
          Compute request
        </button>
      </div>
      <div className="row flex-wrap">
        <span className="label">In</span>
        <button className="plain-button" onClick={() => chooseFile()}>
          Open glTF, OBJ, CSV or JSON
        </button>
      </div>
    </>
  );
}

/** One page with everything. */
export const Report = () => (
  <>
    <p className="text-note leading-4 text-ink2">
      One page of HTML that prints well and needs nothing beside it: the pictures that stand in the centre, conventions,
      numbers, matrices, the working of the probe there and back, test vectors, and the code above.
    </p>
    <div className="row">
      <button className="plain-button" onClick={() => void saveReport()}>
        Save the report
      </button>
    </div>
  </>
);
