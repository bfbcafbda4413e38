/*
 * Words that emitted names must not be: reserved words of each language, names of its library that are in scope without
 * an import, and macros of widely used headers. From the language specifications: ISO C17 and C++20, ECMA-334 (C#), the
 * Rust and Go references, ECMA-262, the Python and Lua manuals, JLS 21, GLSL ES 3.00, WGSL (W3C), and the keywords of
 * shader model 6 for HLSL.
 */

const list = (words: string): readonly string[] => words.trim().split(/\s+/);

const cWords = list(`
  auto break case char const continue default do double else enum extern float for goto if inline int long register
  restrict return short signed sizeof static struct switch typedef union unsigned void volatile while bool true false
  near far small hyper huge min max IN OUT OPTIONAL interface pascal cdecl CONST VOID ERROR DELETE PI M_PI I complex
  imaginary errno stdin stdout stderr abs exp log sin cos tan sqrt floor ceil j0 j1 jn y0 y1 yn gamma index signal`);
const javaScriptWords = list(`
  break case catch class const continue debugger default delete do else enum export extends false finally for function
  if implements import in instanceof interface let new null package private protected public return static super switch
  this throw true try typeof var void while with yield await async arguments eval undefined NaN Infinity`);
const glslWords = list(`
  attribute const uniform varying buffer shared coherent volatile restrict readonly writeonly layout centroid flat
  smooth break continue do for while switch case default if else in out inout float int void bool true false invariant
  discard return mat2 mat3 mat4 vec2 vec3 vec4 ivec2 ivec3 ivec4 bvec2 bvec3 bvec4 uint uvec2 uvec3 uvec4 lowp mediump
  highp precision sampler2D sampler3D samplerCube struct common partition active asm class union enum typedef template
  this packed goto inline noinline public static extern external interface long short double half fixed unsigned
  superp input output hvec2 hvec3 hvec4 sampler3DRect filter image1D image2D image3D sizeof cast namespace using sample
  patch subroutine resource`);

/** Names that no emitted function, type, field, parameter or value of a language may have. */
export const reservedWords: Readonly<Record<string, ReadonlySet<string>>> = Object.fromEntries(
  Object.entries({
    C: cWords,
    'C++': [
      ...cWords,
      ...list(`
      alignas alignof and and_eq asm bitand bitor catch class co_await co_return co_yield compl concept consteval
      constexpr constinit const_cast decltype delete dynamic_cast explicit export friend module mutable namespace new
      noexcept not not_eq nullptr operator or or_eq private protected public reinterpret_cast requires static_assert
      static_cast template this thread_local throw try typeid typename using virtual wchar_t xor xor_eq std`),
    ],
    'C#': list(`
      abstract as base bool break byte case catch char checked class const continue decimal default delegate do double
      else enum event explicit extern false finally fixed float for foreach goto if implicit in int interface internal
      is lock long namespace new null object operator out override params private protected public readonly ref return
      sbyte sealed short sizeof stackalloc static string struct switch this throw true try typeof uint ulong unchecked
      unsafe ushort using virtual void volatile while`),
    Rust: list(`
      as break const continue crate dyn else enum extern false fn for if impl in let loop match mod move mut pub ref
      return self Self static struct super trait true type union unsafe use where while async await abstract become box
      do final macro override priv try typeof unsized virtual yield gen`),
    Go: list(`
      break case chan const continue default defer else fallthrough for func go goto if import interface map package
      range return select struct switch type var true false nil iota append cap clear close complex copy delete imag
      len make new panic print println real recover string error any`),
    TypeScript: [...javaScriptWords, ...list('any boolean number string symbol never unknown object type declare')],
    JavaScript: javaScriptWords,
    Python: list(`
      False None True and as assert async await break class continue def del elif else except finally for from global
      if import in is lambda nonlocal not or pass raise return try while with yield match case abs min max sum len
      list tuple range float int bool print object type`),
    Java: list(`
      abstract assert boolean break byte case catch char class const continue default do double else enum extends final
      finally float for goto if implements import instanceof int interface long native new package private protected
      public return short static strictfp super switch synchronized this throw throws transient try void volatile while
      true false null var record yield`),
    Lua: list(`
      and break do else elseif end false for function goto if in local nil not or repeat return then true until while
      math string table print type pairs ipairs select`),
    GLSL: glslWords,
    WGSL: list(`
      alias break case const const_assert continue continuing default diagnostic discard else enable false fn for if
      let loop override requires return struct switch true var while NULL Self abstract active alignas alignof as asm
      async attribute auto await become cast catch class common compile cross enum export extern external filter final
      finally friend from get goto groupshared highp impl implements import inline instanceof interface layout lowp
      macro match mediump meta mod module move mut mutable namespace new nil noexcept null of operator package packoffset
      pass patch pixelfragment precise precision premerge priv protected pub public readonly ref regardless register
      resource self set shared sizeof smooth snorm static std super target template this throw trait try type typedef
      typename typeof union unless unorm unsafe unsized use using varying virtual volatile wgsl where with writeonly
      yield`).filter((word) => word !== 'cross'),
    HLSL: list(`
      AppendStructuredBuffer asm asm_fragment BlendState bool break Buffer ByteAddressBuffer case cbuffer centroid class
      column_major compile compile_fragment CompileShader const continue ComputeShader ConsumeStructuredBuffer default
      DepthStencilState DepthStencilView discard do double DomainShader dword else export extern false float for fxgroup
      GeometryShader groupshared half Hullshader if in inline inout InputPatch int interface line lineadj linear
      LineStream matrix min16float min10float min16int min12int min16uint namespace nointerpolation noperspective NULL
      out OutputPatch packoffset pass pixelfragment PixelShader point PointStream precise RasterizerState
      RenderTargetView return register row_major sample sampler SamplerState shared snorm stateblock static string
      struct switch StructuredBuffer tbuffer technique texture Texture2D true typedef triangle triangleadj
      TriangleStream uint uniform unorm unsigned vector vertexfragment VertexShader void volatile while`),
  }).map(([language, words]) => [language, new Set(words)]),
);
