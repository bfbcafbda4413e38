import type { Language } from '../print';
import { C } from './c';
import { Cpp } from './cpp';
import { CSharp } from './csharp';
import { Java } from './java';
import { Rust } from './rust';
import { Go } from './go';
import { TypeScript } from './typescript';
import { Python } from './python';
import { Lua } from './lua';
import { Glsl, Wgsl } from './shaders';

/** The eleven languages, each with what it has of its own in its file. */
export const deliverLanguages: readonly Language[] = [
  C,
  Cpp,
  CSharp,
  Rust,
  Go,
  TypeScript,
  Python,
  Java,
  Lua,
  Glsl,
  Wgsl,
];
