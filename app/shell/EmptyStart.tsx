import { addBody } from '../edits/bodies';
import { chooseFile } from '../edits/actions';
import { usePart } from '../state/tempo';

/** How to fill an empty project. */
export default function EmptyStart() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return (
    <section aria-label="To begin with" className="tries">
      <div className="rule">To begin with</div>
      <p>
        This project is empty. Open {flat ? 'a sprite (PNG), ' : 'a scene (glTF), a model (OBJ), '}points (CSV), a
        compute request or a project, or drop or paste it anywhere.
      </p>
      <div className="mt-1">
        <button className="plain-button" onClick={() => chooseFile(undefined, 'project')}>
          Open a file…
        </button>
      </div>
      <p className="mt-2">Or add a body at the probe:</p>
      <div className="mt-1 flex flex-wrap gap-1">
        {(['box', 'sphere', 'point'] as const).map((kind) => (
          <button
            key={kind}
            className="plain-button"
            aria-label={`Add a ${kind} at the probe`}
            onClick={() => addBody(kind)}
          >
            a {kind}
          </button>
        ))}
      </div>
    </section>
  );
}
