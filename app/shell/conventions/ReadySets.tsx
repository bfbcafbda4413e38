import { useState } from 'react';
import { findReady, wordsOfConventions } from '../../../core/conventions/ready';
import { sameConventions, type Conventions } from '../../../core/conventions/conventions';
import { setConventions } from '../../edits/actions';

/** Ready conventions by what they are: typed for, and taken. What was taken keeps screen and angles. */
export function ReadySets({ now }: { now: Conventions }) {
  const [typed, setTyped] = useState('');
  const found = typed.trim() ? findReady(typed) : [];
  return (
    <div className="mt-1">
      <input
        className="ready-find"
        aria-label="Find conventions by what they are"
        placeholder="Find by what they are: left-handed z up rows reversed…"
        value={typed}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <p className="text-small leading-4 text-ink2">Now: {wordsOfConventions(now)}.</p>
      {typed.trim() !== '' && (
        <ul className="ready-list" aria-label="Conventions found">
          {found.slice(0, 6).map(({ name, conventions }) => {
            const { screen, angles } = now;
            const whole = { ...conventions, screen, angles };
            return (
              <li key={name}>
                <button
                  className="menu-item"
                  aria-pressed={sameConventions(whole, now)}
                  onClick={() => setConventions(() => whole)}
                >
                  {name}
                </button>
              </li>
            );
          })}
          {found.length > 6 && <li className="text-small text-ink2">and {found.length - 6} more: type on</li>}
          {!found.length && (
            <li className="text-small text-ink2">None of the ready sets is that. Set the axes below.</li>
          )}
        </ul>
      )}
    </div>
  );
}
