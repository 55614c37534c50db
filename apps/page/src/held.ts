import { openHeld, type HeldPage } from '@pebble/core';

/** What this page holds: it stands in the file as data, and is never run. */
export const held = JSON.parse(document.getElementById('held')!.textContent) as HeldPage;

/** Its map, as it was when the page was made. */
export const whole = openHeld(held.map);
