import { useState } from 'react';
import { findConventions } from '../../../core/conventions/findConventions';
import { wordsOfConventions } from '../../../core/conventions/ready';
import { sameConventions, type Conventions } from '../../../core/conventions/conventions';
import { setConventions } from '../../edits/actions';

const mostShown = 6;

/** Finds usual conventions by typed words and applies one; screen and angles stay unless they are typed too. */
export function ReadySets({ now }: { now: Conventions }) {
  const [typed, setTyped] = useState('');
  const { typed: words, found } = findConventions(typed, now);
  const isTyped = typed.trim() !== '';
  return (
    <div className="mt-1">
      <input
        className="ready-find"
        aria-label="Find conventions by words"
        placeholder="Find: left-handed, z up, rows, reversed-z, Vulkan…"
        value={typed}
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      <p className="text-small leading-4 text-ink2">Now: {wordsOfConventions(now)}.</p>
      {isTyped && words.some(({ isKnown }) => !isKnown) && (
        <p className="text-small leading-4 text-ink2" data-testid="typed-words">
          {words.map(({ text, isKnown }, i) => (
            <span key={i}>
              {i > 0 && ' '}
              {isKnown ? text : <s>{text}</s>}
            </span>
          ))}
          : struck words are not known here.
        </p>
      )}
      {isTyped && (
        <ul className="ready-list" aria-label="Conventions found">
          {found.slice(0, mostShown).map(({ set: { name, conventions }, unmet }) => (
            <li key={name}>
              <button
                className="menu-item"
                aria-pressed={sameConventions(conventions, now)}
                onClick={() => setConventions(() => conventions)}
              >
                {name}
                {unmet.length > 0 && <span className="text-verm"> (not {unmet.join(', not ')})</span>}
              </button>
            </li>
          ))}
          {found.length > mostShown && (
            <li className="text-small text-ink2">{found.length - mostShown} more. Type more words.</li>
          )}
          {!found.length && <li className="text-small text-ink2">No match. Set the axes below.</li>}
        </ul>
      )}
    </div>
  );
}
