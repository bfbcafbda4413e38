import { useState } from 'react';
import { sameConventions, type Conventions } from '../../../core/conventions/conventions';
import { setConventions } from '../../edits/actions';
import { useSettings } from '../../state/settings';

/** The user's own sets: chosen, saved under a name, and dropped. */
export function OwnSets({ now }: { now: Conventions }) {
  const own = useSettings((state) => state.ownConventions);
  const [name, setName] = useState('');
  const save = () => {
    const named = name.trim();
    if (!named) return;
    useSettings.setState({
      ownConventions: [...own.filter((one) => one.name !== named), { name: named, conventions: structuredClone(now) }],
    });
    setName('');
  };
  return (
    <>
      {own.map((one) => (
        <span className="own-set" key={one.name}>
          <button
            className="plain-button"
            aria-pressed={sameConventions(one.conventions, now)}
            onClick={() => setConventions(() => one.conventions)}
          >
            {one.name}
          </button>
          <button
            className="drop"
            aria-label={`Forget the conventions ${one.name}`}
            onClick={() => useSettings.setState({ ownConventions: own.filter((other) => other !== one) })}
          >
            ×
          </button>
        </span>
      ))}
      <span className="own-set">
        <input
          className="own-name"
          aria-label="A name for these conventions"
          placeholder="Save as…"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Enter' && save()}
        />
        {name.trim() && (
          <button className="plain-button" onClick={save}>
            Save
          </button>
        )}
      </span>
    </>
  );
}
