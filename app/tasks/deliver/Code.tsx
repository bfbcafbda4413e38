import { lazy, Suspense, useDeferredValue } from 'react';
import { languageOf } from '../../../core/deliver/code';
import { codeParts, codePartsOf, type CodePart } from '../../../core/deliver/library';
import type { Size } from '../../pictures/compose/contract';
import { CheckRow } from '../../sheet/CheckRow';
import { SelectRow } from '../../sheet/Select';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { Choice } from '../../ui/Choice';
import { copy } from '../../ui/notices';
import type { ColouredProps } from './Coloured';
import { commandsOf } from './commands';
import { change, copyCode, saveAll, saveCode } from './edits';
import { codeNow } from './setUp';
import { languageNames, namings, type DeliverState } from './kept';
import { namingWords, partWords } from './words';

/** The code as it is now, a little behind the hand while something is dragged. */
export function useCode() {
  const now = useDeferredValue(useTaskMoment<DeliverState>('deliver'));
  return { now, made: codeNow(now) };
}

// The grammars of thirteen languages are loaded apart: until then the text is plain.
const Highlighted = lazy(() => import('./Coloured'));

/** Source text, with its syntax highlighted once the grammars are loaded. */
export const Coloured = (props: ColouredProps) => (
  <Suspense
    fallback={
      <pre className="code-text" tabIndex={0}>
        {props.text}
      </pre>
    }
  >
    <Highlighted {...props} />
  </Suspense>
);

/** How the code is wanted: language, parts, type and names. */
export function Wish() {
  const now = useTaskMoment<DeliverState>('deliver');
  const { slice } = now;
  const shader = languageOf(slice.language)?.floatsAlone ?? false;
  const able = codePartsOf(now.flat);
  const toggle = (part: CodePart, on: boolean) =>
    change(on ? `take ${partWords[part]}` : `leave out ${partWords[part]}`, (draft) => {
      draft.parts = codeParts.filter((one) => (one === part ? on : draft.parts.includes(one)));
    });
  return (
    <>
      <SelectRow
        label="Language"
        id="deliver-language"
        value={slice.language}
        options={languageNames.map((value) => ({ value, label: value }))}
        onChange={(value) => change('choose the language', (draft) => void (draft.language = value))}
      />
      <div className="row wide">
        <span className="label">Numbers</span>
        <Choice
          name="Number type"
          value={shader ? 'float' : slice.number}
          options={[
            { value: 'double', label: 'double', disabled: shader, title: shader ? 'Shaders have floats alone' : '' },
            { value: 'float', label: 'float' },
          ]}
          onChange={(value) => change('choose the number type', (draft) => void (draft.number = value))}
        />
      </div>
      <SelectRow
        label="Names"
        id="deliver-naming"
        value={slice.naming}
        options={namings.map((value) => ({ value, label: namingWords[value] }))}
        onChange={(value) => change('choose how names are written', (draft) => void (draft.naming = value))}
      />
      <div className="part-list" role="group" aria-label="Parts">
        {able.map((part) => (
          <label key={part} className="check">
            <input
              type="checkbox"
              checked={part === 'camera' || slice.parts.includes(part)}
              disabled={part === 'camera'}
              onChange={({ target }) => toggle(part, target.checked)}
            />
            {now.flat && part === 'camera' ? 'camera' : partWords[part]}
          </label>
        ))}
      </div>
      <CheckRow
        label="With this camera’s own numbers"
        checked={slice.constants}
        onChange={(on) => change('choose constants or parameters', (draft) => void (draft.constants = on))}
      />
    </>
  );
}

/** The code of the ticked parts, in a pane of its own. */
export function CodePane({ size }: { size: Size }) {
  const { now, made } = useCode();
  if (typeof made === 'string') return <p className="pane-note">There is no code while the camera cannot be.</p>;
  return (
    <div className="code-pane" style={{ width: size.width, height: size.height }}>
      <Coloured id="code" text={made.file.text} language={now.slice.language} />
    </div>
  );
}

/** What takes the code home. */
export function Code() {
  const { now, made } = useCode();
  if (typeof made === 'string') return <p className="warning">There is no code while the camera cannot be: {made}</p>;
  const { file } = made;
  const seesGround = !now.slice.parts.includes('spawn') || now.flat || /may_?appear/i.test(file.text);
  return (
    <>
      <div className="row flex-wrap">
        <button className="plain-button" onClick={copyCode}>
          Copy
        </button>
        <button className="plain-button" onClick={saveCode}>
          Save
        </button>
        <button className="plain-button" onClick={() => void saveAll()}>
          All as a zip
        </button>
      </div>
      <p className="text-note leading-4 text-ink2" data-testid="code-size">
        {file.name}, {counted(file.text.split('\n').length - 1, 'line', 'lines')}, in the pane below the picture.
      </p>
      {!seesGround && (
        <p className="warning">The camera sees none of the ground, so there is nothing to spawn out of sight of.</p>
      )}
    </>
  );
}

/** A program that uses the code on this very camera, with what is to come out. */
export function Example() {
  const { now, made } = useCode();
  if (typeof made === 'string') return <p className="warning">{made}</p>;
  const example = made.example();
  if (!example)
    return (
      <p className="text-note leading-4 text-ink2">
        A shader prints nothing: its functions are called where its picture is made.
      </p>
    );
  return (
    <>
      <div className="row">
        <button className="plain-button" onClick={() => void copy(example, 'the example')}>
          Copy
        </button>
        <span className="ml-auto text-ink2">of the probe, by this camera</span>
      </div>
      <Coloured id="example" text={example} language={now.slice.language} />
    </>
  );
}

/** The commands that give the same code and the expected answers, for exactly this project. */
export function Commands() {
  const { slice, flat } = useTaskMoment<DeliverState>('deliver');
  const lines = commandsOf(slice, flat).join('\n');
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        With the project saved as a compute request, camera.json: the menu under its name, or the zip.
      </p>
      <pre className="code-lines" data-testid="commands" tabIndex={0}>{lines}</pre>
      <div className="row">
        <button className="plain-button" onClick={() => void copy(lines, 'the commands')}>Copy</button>
      </div>
    </>
  );
} // prettier-ignore
