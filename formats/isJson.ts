/** Tells whether a text is meant to be JSON, by its file name or its first characters. */
export const isJson = (text: string, name: string): boolean => /\.json$/i.test(name) || /^\s*[{[]\s*["{\]}]/.test(text);
