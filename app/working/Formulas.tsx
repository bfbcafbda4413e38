import 'katex/dist/katex.min.css';
import katex from 'katex';
import { useLayoutEffect, useRef, useState } from 'react';
import { valuesOf } from '../../core/formulas/expression';
import { asCode, asLatex, asPlain, asTex, languages, type Language } from '../../core/formulas/languages';
import { useMoment } from '../state/tempo';
import { Choice } from '../ui/Choice';
import { copy } from '../ui/notices';
import type { FormulasOf } from './formulasOf';
import { formulasOf } from './formulasOf';
import { shortDigits } from './lines';

/** What doubles leave over of nothing is nothing. */
const digits = (value: number) => shortDigits(Math.abs(value) < 1e-12 ? 0 : value);

function Tex({ tex }: { tex: string }) {
  const element = useRef<HTMLDivElement>(null);
  useLayoutEffect(
    () => katex.render(tex, element.current!, { strict: false, throwOnError: false, displayMode: true }),
    [tex],
  );
  return <div className="formula" ref={element} />;
}

/** Formulas step by step, in symbols or with the numbers put in, and their ways home. */
export default function FormulaSteps({ of }: { of: FormulasOf }) {
  const moment = useMoment();
  const [form, setForm] = useState<'symbols' | 'numbers'>('symbols');
  const [language, setLanguage] = useState<Language>('C++');
  const formulas = formulasOf(of, moment);
  if (!formulas) return <p>There is nothing to work out here: the question has no answer.</p>;
  const values = valuesOf(formulas);
  const steps = asTex(formulas, values, digits);
  const wanted = new Set(formulas.wanted);
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-1">
        <Choice
          name="How the formulas are shown"
          value={form}
          options={[
            { value: 'symbols', label: 'symbols' },
            { value: 'numbers', label: 'with the numbers' },
          ]}
          onChange={setForm}
        />
        <button className="plain-button" onClick={() => void copy(asLatex(formulas), 'the formulas as LaTeX')}>
          Copy LaTeX
        </button>
        <button className="plain-button" onClick={() => void copy(asPlain(formulas), 'the formulas')}>
          Copy plain
        </button>
        <select
          className="select"
          aria-label="Language of the code"
          value={language}
          onChange={({ target }) => setLanguage(target.value as Language)}
        >
          {languages.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <button
          className="plain-button"
          onClick={() => void copy(asCode(formulas, language), `the body of a function in ${language}`)}
        >
          Copy code
        </button>
      </div>
      <div className="working-lines">
        {steps.map(({ name, says, left, symbols, numbers, value }) => (
          <div key={name} data-step={name}>
            {says && <h4>{says}</h4>}
            <Tex
              tex={
                form === 'symbols'
                  ? `${left}=${symbols}`
                  : `${left}=${numbers}=${wanted.has(name) ? `\\mathbf{${digits(value)}}` : digits(value)}`
              }
            />
          </div>
        ))}
      </div>
      <dl className="formula-given">
        {formulas.given.map(({ name, says, tex, value }) => (
          <div key={name}>
            <dt>
              <Tex tex={tex} />
            </dt>
            <dd>{says}</dd>
            <dd className="font-mono">{digits(value)}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
