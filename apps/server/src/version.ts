/** Of the application: what it makes of the same data can be otherwise in another one. */
export const VERSION = '0.1.0';
