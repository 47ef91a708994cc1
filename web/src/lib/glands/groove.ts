import type { Schemas } from '../api/client';
import { withUnit } from '../shared/quantity';

/** A groove as it is being typed; texts may be empty or lack their unit. */
export interface GrooveDraft {
	seat: Schemas['Seat'];
	motion: Schemas['Motion'];
	medium: Schemas['Medium'];
	across: string;
	groove_diameter: string;
	groove_width: string;
	clearance: string;
	pressure: string;
	direction: Schemas['PressureDirection'];
	hardness: number;
	temperature: string;
	temperatureUnit: string;
	swell: number;
	backups: number;
	material: string;
	wall: string;
	housing: Schemas['HousingMaterial'];
	pressedFrom: Schemas['PressedFrom'];
}

export const emptyGroove = (): GrooveDraft => ({
	seat: 'piston',
	motion: 'static',
	medium: 'liquid',
	across: '',
	groove_diameter: '',
	groove_width: '',
	clearance: '',
	pressure: '',
	direction: 'one_side',
	hardness: 70,
	temperature: '20',
	temperatureUnit: '°C',
	swell: 0,
	backups: 0,
	material: 'NBR',
	wall: '',
	housing: 'steel',
	pressedFrom: 'inside'
});

/** What the third dimension is called on each seat. */
export const ACROSS = { piston: 'Bore', rod: 'Rod', face: 'Groove depth' } as const;
export const GROOVE_DIAMETER = {
	piston: 'Groove diameter (bottom)',
	rod: 'Groove diameter (bottom)',
	face: 'Wall the ring rests on (diameter)'
} as const;

/** True when enough is given to check a ring. */
export function isComplete(draft: GrooveDraft): boolean {
	return Boolean(draft.across.trim() && draft.groove_diameter.trim() && draft.groove_width.trim());
}

/** The draft as the API takes it; bare numbers get the unit of their field. */
export function grooveBody(draft: GrooveDraft, length: string, pressure: string): Schemas['GrooveBody'] {
	const across = withUnit(draft.across, length);
	return {
		seat: draft.seat,
		motion: draft.motion,
		medium: draft.medium,
		bore: draft.seat === 'piston' ? across : null,
		rod: draft.seat === 'rod' ? across : null,
		groove_depth: draft.seat === 'face' ? across : null,
		groove_diameter: withUnit(draft.groove_diameter, length),
		groove_width: withUnit(draft.groove_width, length),
		diametral_clearance: draft.clearance.trim() ? withUnit(draft.clearance, length) : null,
		pressure: draft.pressure.trim() ? withUnit(draft.pressure, pressure) : null,
		pressure_direction: draft.direction,
		hardness_shore_a: draft.hardness,
		material: draft.material,
		temperature: draft.temperature.trim() ? withUnit(draft.temperature, draft.temperatureUnit) : '20 °C',
		swell_pct: draft.swell,
		backup_rings_fitted: draft.backups,
		wall: draft.wall.trim() ? withUnit(draft.wall, length) : null,
		housing: draft.housing,
		pressed_from: draft.pressedFrom
	};
}

/** Compounds of the compatibility table, commonest first. */
export const MATERIALS = ['NBR', 'HNBR', 'FKM', 'EPDM', 'VMQ', 'CR', 'AU', 'PTFE'] as const;
export const HOUSINGS = [
	['steel', 'steel'],
	['stainless', 'stainless steel'],
	['cast_iron', 'cast iron'],
	['aluminium', 'aluminium'],
	['brass', 'brass or bronze'],
	['plastic', 'plastic']
] as const;
export const SEATS = [
	['piston', 'Piston', 'groove in the inner part'],
	['rod', 'Rod', 'groove in the outer part'],
	['face', 'Face', 'groove in a flat face']
] as const;
export const MOTIONS = [
	['static', 'Static'],
	['reciprocating', 'Reciprocating'],
	['rotary', 'Rotary']
] as const;
export const MEDIA = [
	['liquid', 'Liquid'],
	['gas', 'Gas']
] as const;

/** A pressed ring keeps its area: width of a shape with flat faces and round ends, as high as the gland is deep. */
export function pressedWidth(section: number, height: number): number {
	const area = (Math.PI / 4) * section ** 2;
	return height + Math.max(area - (Math.PI / 4) * height ** 2, 0) / height;
}
