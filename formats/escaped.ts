/** Text as it stands in HTML and XML, in an element or an attribute between double quotes. */
export const escaped = (text: string): string => text.replace(/[<>&"]/g, (letter) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' })[letter]!); // prettier-ignore
