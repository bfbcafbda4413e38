/** Control characters that no XML may hold, not even escaped. */
// eslint-disable-next-line no-control-regex
const forbidden = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** Escapes text for HTML and XML, in an element or an attribute between double quotes. */
export const escaped = (text: string): string =>
  text
    .replace(forbidden, '\ufffd')
    .replace(/[<>&"]/g, (letter) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' })[letter]!);
