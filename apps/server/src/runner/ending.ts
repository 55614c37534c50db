/** What a running step is told to do, in an element of memory that it shares. */
export const GO_ON = 0;
/** The researcher cancels it. */
export const CANCELLED = 1;
/** The application is being closed. */
export const CLOSING = 2;
