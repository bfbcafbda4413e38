import hljs from 'highlight.js/lib/core';
import c from 'highlight.js/lib/languages/c';
import cpp from 'highlight.js/lib/languages/cpp';
import csharp from 'highlight.js/lib/languages/csharp';
import glsl from 'highlight.js/lib/languages/glsl';
import go from 'highlight.js/lib/languages/go';
import java from 'highlight.js/lib/languages/java';
import javascript from 'highlight.js/lib/languages/javascript';
import lua from 'highlight.js/lib/languages/lua';
import python from 'highlight.js/lib/languages/python';
import rust from 'highlight.js/lib/languages/rust';
import typescript from 'highlight.js/lib/languages/typescript';

const grammars = { c, cpp, csharp, glsl, go, java, javascript, lua, python, rust, typescript };
for (const [name, grammar] of Object.entries(grammars)) hljs.registerLanguage(name, grammar);

/** The grammar of a language: of HLSL that of GLSL, of WGSL that of Rust, whose words are most alike. */
const grammarOf: Readonly<Record<string, keyof typeof grammars>> = { C: 'c', 'C++': 'cpp', 'C#': 'csharp', GLSL: 'glsl', Go: 'go', HLSL: 'glsl', Java: 'java', JavaScript: 'javascript', Lua: 'lua', Python: 'python', Rust: 'rust', TypeScript: 'typescript', WGSL: 'rust' }; // prettier-ignore

/** Code as coloured HTML: everything in it is escaped. */
export const coloured = (text: string, language: string): string =>
  hljs.highlight(text, { language: grammarOf[language] ?? 'c', ignoreIllegals: true }).value;
