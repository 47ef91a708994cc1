import type { Across, FurtherRead } from './types';

/** The ways to read across a ring, with what each is good for. */
export const WAYS: { key: Across; name: string; hint: string }[] = [
	{ key: 'inside_diameter', name: 'Inside diameter', hint: 'ring lying free, not stretched' },
	{ key: 'outside_diameter', name: 'Outside diameter', hint: 'ring lying flat; for soft rings' },
	{ key: 'cone_diameter', name: 'On a cone gauge', hint: 'where the ring settles by itself' },
	{ key: 'inside_circumference', name: 'Round the inside', hint: 'tape laid inside a large ring' },
	{ key: 'cut_length', name: 'Cut, laid straight', hint: 'length of a ring that was cut through' }
];

const NAMES: Record<FurtherRead, string> = {
	inside_diameter: 'Inside diameter',
	outside_diameter: 'Outside diameter',
	inside_circumference: 'Round the inside',
	cut_length: 'Cut, laid straight',
	cone_diameter: 'On a cone gauge',
	section: 'Section, finer',
	groove_diameter: 'Groove diameter',
	groove_width: 'Groove width'
};

/** What a further reading is called on its field. */
export const furtherName = (read: FurtherRead): string => NAMES[read];

/** The name of a size as people say it, with the other names of the same ring. */
export function sizeName(size: {
	series: string;
	designation: string;
	also?: { series: string; designation: string }[];
}): string {
	const nameOf = (name: { series: string; designation: string }) =>
		`${name.series === 'metric' ? 'metric stock' : name.series} ${name.designation}`;
	return [nameOf(size), ...(size.also ?? []).map(nameOf)].join(' = ');
}
