import { useMemo } from 'react';
import { coloured } from '../../../formats/coloured';

export interface ColouredProps {
  readonly text: string;
  readonly language: string;
  readonly id: string;
}

/** Source text with its syntax highlighted. */
export default function Coloured({ text, language, id }: ColouredProps) {
  const html = useMemo(() => ({ __html: coloured(text, language) }), [text, language]);
  return <pre className="code-text" data-testid={id} tabIndex={0} dangerouslySetInnerHTML={html} />;
}
