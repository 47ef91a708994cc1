import { expect, it } from 'vitest';
import { faultOf } from './look';

it('finds the drawing by the words, whatever stands around them', () => {
	expect(faultOf('none')).toBe('sound');
	expect(faultOf('torn edge')).toBe('torn');
	expect(faultOf('holds water')).toBe('water');
	expect(faultOf('bend the pins')).toBe('bent');
	// Another word that only contains one is another word.
	expect(faultOf('smells of fuel')).toBeNull();
});
