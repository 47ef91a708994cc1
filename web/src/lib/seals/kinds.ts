import type { Schemas } from '$lib/api';

/** Kinds of seal as the trade calls them. */
export const KINDS: [Schemas['SealKind'], string][] = [
	['lip_seal', 'Lip seal'],
	['wiper', 'Wiper'],
	['slide_ring', 'Slide ring with energiser'],
	['wear_band', 'Wear band'],
	['v_packing', 'V-packing set'],
	['shaft_seal', 'Rotary shaft seal'],
	['metal_clad_wiper', 'Metal-clad wiper']
];
