import type { Language } from '../print';
import { C } from './c';
import { Cpp } from './cpp';
import { CSharp } from './csharp';
import { Java } from './java';
import { Rust } from './rust';
import { Go } from './go';
import { JavaScript, TypeScript } from './typescript';
import { Python } from './python';
import { Lua } from './lua';
import { Glsl, Wgsl } from './shaders';
import { Hlsl } from './hlsl';

/** The languages that code is emitted in, each described in a file of its own. */
export const deliverLanguages: readonly Language[] = [
  C,
  Cpp,
  CSharp,
  Rust,
  Go,
  TypeScript,
  JavaScript,
  Python,
  Java,
  Lua,
  Glsl,
  Wgsl,
  Hlsl,
];
