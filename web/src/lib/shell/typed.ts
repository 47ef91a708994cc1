import { Wedge } from '$lib/asks';

/** What is typed while no field has the cursor, on any screen. */
export const typed = new Wedge();
