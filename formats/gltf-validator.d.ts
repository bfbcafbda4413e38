/* The part of the reference validator that the tests call. */
declare module 'gltf-validator' {
  interface Report {
    readonly issues: {
      readonly messages: readonly { readonly code: string; readonly severity: number; readonly pointer?: string }[];
    };
  }
  const validator: { validateBytes(bytes: Uint8Array, options?: { maxIssues?: number }): Promise<Report> };
  export default validator;
}
