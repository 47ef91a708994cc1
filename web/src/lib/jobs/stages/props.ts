import type { JobView, SheetView } from '$lib/api';
import type { JobStore } from '../job.svelte';

/** What every stage's screen is handed. */
export interface StageProps {
	store: JobStore;
	view: JobView;
	sheet: SheetView;
}

export type StationSpec = SheetView['document']['stations'][number];
export type ElementSpec = StationSpec['elements'][number];

/** The name of a zone of the sheet. */
export function zoneName(sheet: SheetView, key: string | null | undefined): string {
	return sheet.document.zones.find((zone) => zone.key === key)?.name ?? key ?? '';
}

/** What the rules say about an element: the zone it faces and the instruction. */
export function oriented(sheet: SheetView, key: string) {
	return sheet.orientation.stations.flatMap((station) => station.elements).find((one) => one.key === key);
}
