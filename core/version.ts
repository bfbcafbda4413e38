/** The version of the program and of its package. */
export const version = '0.1.0';
