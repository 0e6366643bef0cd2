/** Version of this program, written beside every verdict that it gives. A test holds it to package.json. */
export const PROGRAM_VERSION = '0.2.0';
