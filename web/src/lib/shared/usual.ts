import type { Dimension } from './quantity';
import table from './units.json';

const usual = new Map<string, string>();

/** Takes over what a bare number means in this shop. */
export function setUsualUnits(units: Record<string, string>): void {
	for (const [dimension, unit] of Object.entries(units)) usual.set(dimension, unit);
}

/** The unit of a bare number on a field, until its own button says otherwise. */
export function usualUnit(dimension: Dimension): string {
	return usual.get(dimension) ?? table.offered[dimension][0] ?? '';
}
