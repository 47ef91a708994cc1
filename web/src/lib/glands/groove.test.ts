import { expect, it } from 'vitest';
import { emptyGroove, grooveBody, isComplete, pressedWidth } from './groove';

it('is complete with the three dimensions of its seat', () => {
	const draft = { ...emptyGroove(), across: '50', groove_diameter: '44.4' };
	expect(isComplete(draft)).toBe(false);
	expect(isComplete({ ...draft, groove_width: '5.4' })).toBe(true);
});

it.each([
	['piston', 'bore'],
	['rod', 'rod'],
	['face', 'groove_depth']
] as const)('puts the third dimension of a %s seat under %s', (seat, field) => {
	const body = grooveBody({ ...emptyGroove(), seat, across: '50 mm +0.039/-0' }, 'in', 'psi');
	expect(body[field]).toBe('50 mm +0.039/-0');
	expect([body.bore, body.rod, body.groove_depth].filter((figure) => figure !== null)).toHaveLength(1);
});

it('gives bare numbers the unit of the field and leaves empty ones out', () => {
	const body = grooveBody({ ...emptyGroove(), groove_diameter: '1.75', pressure: '3000' }, 'in', 'psi');
	expect(body.groove_diameter).toBe('1.75 in');
	expect(body.pressure).toBe('3000 psi');
	expect(body.diametral_clearance).toBeNull();
});

it('keeps the area of a ring that is pressed flat', () => {
	// 3.5 mm cord pressed to 2.8: area 9.621; ends 6.158; middle 3.463 over 2.8 is 1.237 wide; in all 4.037 by hand.
	expect(pressedWidth(3.5, 2.8)).toBeCloseTo(4.037, 3);
	expect(pressedWidth(3.5, 3.5)).toBeCloseTo(3.5);
});
