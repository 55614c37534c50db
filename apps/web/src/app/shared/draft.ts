import { computed, linkedSignal, untracked, type WritableSignal } from '@angular/core';

/**
 * A value that somebody changes. It begins anew when what it began with is another, and not when the same is read again, so that nothing is
 * lost that was being chosen or typed while a step ended elsewhere.
 */
export function draftOf<T>(begin: () => T): WritableSignal<T> {
  return linkedSignal({ source: unlessSame(begin), computation: (value: T) => value });
}

/** A value that somebody gives, and that holds as long as it is about the same. */
export function draftAbout<T>(about: () => unknown, begin: () => T): WritableSignal<T> {
  return linkedSignal({ source: unlessSame(about), computation: () => untracked(begin) });
}

const unlessSame = <T>(read: () => T) =>
  computed(read, { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) });
